import { createContext, useContext } from 'react'

/** Whether a desk has few things and much room: then their pictures lie there large. */
export const Roomy = createContext(false)
export const useRoomy = (): boolean => useContext(Roomy)
