export { MyPieceScreen as default } from '../../../../desk/MyPieceScreen'
