export {
  DEMO_CARDS,
  DEMO_DOORS,
  DEMO_PASSWORD,
  DEMO_STAFF,
  loadDemo,
  type DemoSignIns,
} from './loadDemo.ts'
export { photograph } from './photograph.ts'
export { Chance } from './chance.ts'
export {
  CAMERA_FRAME,
  photographCard,
  PLAIN_VIEW,
  viewOfDifficulty,
  type CardView,
} from './cardPictures.ts'
export {
  photographSheet,
  PLAIN_SHEET,
  sheetOfDifficulty,
  type DeskPicture,
  type SheetView,
} from './deskPictures.ts'
