/** What families see, and whoever has a page link. */
export { FamilyScreen } from '../sharing/FamilyScreen'
export { LinkedPieceScreen } from '../sharing/LinkedPieceScreen'
export { ParentLayout } from '../sharing/ParentLayout'
