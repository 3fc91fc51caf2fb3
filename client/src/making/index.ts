/** What other capabilities use of this one. */
export { PartsStrip } from './PartsStrip'
export { useGoOnAfter } from './LastStep'
export { TakeOut } from './TakeOut'
