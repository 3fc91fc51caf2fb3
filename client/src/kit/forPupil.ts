import { createContext } from 'react'

/**
 * Whether a screen is a pupil's, who may not read yet: what it says in words offers to be heard,
 * and what one taps is large.
 */
export const ForPupil = createContext(false)
