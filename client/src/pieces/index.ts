/** What other capabilities use of this one. */
export { EarlierVersions, versionLine } from './EarlierVersions'
export { OutboxLine } from './OutboxLine'
export { PieceTrouble } from './PieceTrouble'
export { TeacherSaid } from './TeacherSaid'
export { WithPiece } from './WithPiece'
export {
  pieceQuery,
  useAnotherGo,
  useClassmates,
  useMyPieces,
  useOneMoreGo,
  usePiece,
} from './piecesQueries'
export { markUpsQuery, useMarkUps, usePutMarkUp } from './markUps'
export { noteTakenOut, useShownLines, useShownPiece } from './shownPiece'
export { t as piecesWords } from './words'
export { usePieceWork, useSavesItself, useWords, type FileOfPart } from './usePieceWork'
