import type { Drawing } from './drawing'

/** Drawings that were open since somebody came: the way back is still there when they are again. */
export const openedDrawings = new Map<string, Drawing>()
/** When the tablet goes to somebody else. */
export const forgetDrawings = (): void => openedDrawings.clear()
