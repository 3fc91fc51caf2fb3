/** Everything that draws: fetched by whoever draws. */
export { DrawScreen } from '../ink/DrawScreen'
export { StarterScreen } from '../ink/StarterScreen'
