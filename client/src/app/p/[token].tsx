export { LinkedPieceScreen as default } from '../../sharing/LinkedPieceScreen'
