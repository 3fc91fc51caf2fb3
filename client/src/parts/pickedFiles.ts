import { router, type Href } from 'expo-router'
import { pickForPiece } from '../device/pickFiles'

/** Files picked on one screen and taken in by the next, once. */
let lying: File[] = []

/** Opens the chooser at once; only what was picked leads on. */
export async function pickInto(place: Href): Promise<void> {
  const files = await pickForPiece()
  if (files.length === 0) return
  lying = files
  router.push(place)
}

/** @returns what was picked on the screen before, and nothing the second time */
export function pickUp(): File[] {
  const files = lying
  lying = []
  return files
}
