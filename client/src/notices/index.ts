/** What other capabilities use of this one. */
export { NoticesFor } from './NoticesFor'
export { StaffNewsBox, useStaffNews } from './StaffNewsBox'
export { useMarkNewsSeen, useNews, useNotices } from './noticesQueries'
export { t as noticesWords } from './words'
