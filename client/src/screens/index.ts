import { screensOf } from './screensOf'

export const pupilScreen = screensOf(() => import('./pupil'))
export const teacherScreen = screensOf(() => import('./teacher'))
export const familyScreen = screensOf(() => import('./family'))
export const doorScreen = screensOf(() => import('./door'))
