/** What other capabilities use of this one. */
export { NoticesFor } from './NoticesFor'
export { StaffNewsBox } from './StaffNewsBox'
export { useMarkNewsSeen, useNews } from './noticesQueries'
export { strings as noticesStrings } from './strings'
