/** Files picked on one screen and taken in by the next, once. */
let lying: File[] = []

export function layDown(files: File[]): void {
  lying = files
}

/** @returns what was laid down, and nothing the second time */
export function pickUp(): File[] {
  const files = lying
  lying = []
  return files
}
