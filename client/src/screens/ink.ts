/** Everything that draws: fetched by whoever draws. */
export { DrawScreen } from '../ink/DrawScreen'
export { MarkUpScreen } from '../ink/MarkUpScreen'
export { LyingScreen } from '../ink/LyingScreen'
export { StarterScreen } from '../ink/StarterScreen'
export { TalkScreen } from '../ink/TalkScreen'
