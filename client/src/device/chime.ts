/** Three rising notes, soft, in hertz: a broken major chord. */
const NOTES = [523.25, 659.25, 783.99]
const APART_S = 0.11
const RINGS_S = 0.5
const LOUDNESS = 0.12

/** A short sound of something that is done; nothing where the browser makes none. */
export function chime(): void {
  if (typeof AudioContext === 'undefined') return
  const context = new AudioContext()
  for (const [i, hertz] of NOTES.entries()) {
    const from = context.currentTime + i * APART_S
    const loudness = context.createGain()
    loudness.gain.setValueAtTime(0, from)
    loudness.gain.linearRampToValueAtTime(LOUDNESS, from + 0.02)
    loudness.gain.exponentialRampToValueAtTime(0.001, from + RINGS_S)
    const note = context.createOscillator()
    note.frequency.value = hertz
    note.connect(loudness).connect(context.destination)
    note.start(from)
    note.stop(from + RINGS_S)
    if (i === NOTES.length - 1) note.onended = () => void context.close()
  }
}
