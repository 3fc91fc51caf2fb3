import { createElement } from 'react'
import { laterFrom } from '../kit/later'
import { Loading } from '../kit/Notice'

const meanwhile = createElement(Loading)

export const pupilScreen = laterFrom(() => import('./pupil'), meanwhile)
export const teacherScreen = laterFrom(() => import('./teacher'), meanwhile)
/** The table to draw at, which pupils and teachers share. */
export const inkScreen = laterFrom(() => import('./ink'), meanwhile)
export const familyScreen = laterFrom(() => import('./family'), meanwhile)
export const doorScreen = laterFrom(() => import('./door'), meanwhile)
