export { beginDemo, fillDemo, untilPrepared, type BegunDemo, type DemoRest } from './loadDemo.ts'
export { DEMO_CARDS, DEMO_DOORS, DEMO_PASSWORD, DEMO_STAFF } from './signIns.ts'
export { photograph } from './photograph.ts'
export { Chance } from './chance.ts'
export { drawInInk } from './inInk.ts'
export { filmed, spoken } from './recordings.ts'
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
