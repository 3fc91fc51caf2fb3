export { MyPieceScreen as default } from '../../../../pieces/MyPieceScreen'
