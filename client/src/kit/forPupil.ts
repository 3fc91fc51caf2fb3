import { createContext, useContext } from 'react'
import { targets } from './theme'

/**
 * Whether a screen is a pupil's, who may not read yet: what it says in words offers to be heard,
 * and what one taps is large.
 */
export const ForPupil = createContext(false)

/** How large at least what one taps is here, in pixels. */
export const useTargetPx = (): number => (useContext(ForPupil) ? targets.pupil : targets.adult)
