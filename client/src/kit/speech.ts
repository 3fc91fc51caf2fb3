/** What sounds now. One thing does at a time: whatever begins ends what sounded before. */
let sounding: { end: () => boolean } | null = null

/**
 * @param hush - Makes it still.
 * @param onEnd - Called once, however it ends.
 * @returns ends it, and nothing that began after it; says whether it still sounded
 */
function sound(hush: () => void, onEnd: () => void): () => boolean {
  silence()
  const mine = {
    end: () => {
      if (sounding !== mine) return false
      sounding = null
      hush()
      onEnd()
      return true
    },
  }
  sounding = mine
  return mine.end
}

/** Whether the browser has a voice of its own. */
export const canSpeak = (): boolean => typeof speechSynthesis !== 'undefined'

/**
 * Says words with the browser's own voice.
 * @param onEnd - Also when it was stopped.
 * @returns stops it
 */
export function say(text: string, onEnd: () => void): () => void {
  const words = new SpeechSynthesisUtterance(text)
  words.lang = document.documentElement.lang || 'en-GB'
  words.rate = 0.9
  const end = sound(() => speechSynthesis.cancel(), onEnd)
  words.onend = end
  words.onerror = end
  speechSynthesis.speak(words)
  return end
}

/**
 * Plays a recording, or a film, from where it stands.
 * @param onEnd - Also when it was stopped.
 * @returns stops it where it is
 */
export function play(
  recording: HTMLMediaElement,
  onEnd: () => void,
  onFailed: () => void,
): () => void {
  const end = sound(() => recording.pause(), onEnd)
  recording.onended = end
  // What was stopped before it had begun, or gave way to something else, has not failed.
  recording.play().catch(() => end() && onFailed())
  return end
}

export const silence = (): void => void sounding?.end()
