/** What other capabilities use of this one. */
export { ParentsBox } from './ParentsBox'
export { usePupilSharing } from './sharingQueries'
