/** What other capabilities use of this one. */
export { Gate } from './Gate'
export { PlacesLayout } from './PlacesLayout'
