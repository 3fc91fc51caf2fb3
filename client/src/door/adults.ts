/** What grown-ups come in by: forms, which the door of a pupil does without. */
export { AdultDoor } from './AdultDoor'
export { ParentDoor } from './ParentDoor'
