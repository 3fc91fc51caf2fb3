/** How long something sounds, or has sounded, as minutes and seconds: 2:05. */
export function playingTime(ms: number): string {
  const seconds = Math.max(0, Math.round(ms / 1000))
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
}
