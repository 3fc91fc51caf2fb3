/** Everything that draws: fetched by whoever draws. */
export { DrawScreen } from '../ink/DrawScreen'
export { LyingScreen } from '../ink/LyingScreen'
export { StarterScreen } from '../ink/StarterScreen'
export { TalkScreen } from '../ink/TalkScreen'
