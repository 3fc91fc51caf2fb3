/** What other capabilities use of this one. */
export { NoticesFor } from './NoticesFor'
export { StaffNewsAtStart, StaffNewsBox, useNewsAtStart } from './StaffNewsBox'
export { useMarkNewsSeen, useNews, useNotices } from './noticesQueries'
export { t as noticesWords } from './words'
