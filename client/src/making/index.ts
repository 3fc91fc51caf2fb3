/** What other capabilities use of this one. */
export { PartsStrip } from './PartsStrip'
