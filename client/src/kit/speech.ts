/** What sounds now. One thing does at a time: whatever begins ends what sounded before. */
let sounding: { end: () => void } | null = null

/** @param hush - Makes it still. @param onEnd - Called once, however it ends. @returns ends it, and nothing that began after it */
function sound(hush: () => void, onEnd: () => void): () => void {
  silence()
  const mine = {
    end: () => {
      if (sounding !== mine) return
      sounding = null
      hush()
      onEnd()
    },
  }
  sounding = mine
  return mine.end
}

/** Whether the browser has a voice of its own. */
export const canSpeak = (): boolean => typeof speechSynthesis !== 'undefined'

/** Says words with the browser's own voice. @param onEnd - Also when it was stopped. @returns stops it */
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

/** Plays a recording from where it stands. @param onEnd - Also when it was stopped. @returns stops it where it is */
export function play(recording: HTMLAudioElement, onEnd: () => void, onFailed: () => void): () => void {
  const end = sound(() => recording.pause(), onEnd)
  recording.onended = end
  recording.play().catch((error: unknown) => {
    // Stopped before it had begun.
    if (error instanceof DOMException && error.name === 'AbortError') return
    end()
    onFailed()
  })
  return end
}

export const silence = (): void => sounding?.end()
