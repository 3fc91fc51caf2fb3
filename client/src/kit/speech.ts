/** The browser's own voice. */
export const canSpeak = (): boolean => typeof speechSynthesis !== 'undefined'

/** @param onEnd - Also when it was stopped. */
export function say(text: string, onEnd: () => void): void {
  silence()
  const words = new SpeechSynthesisUtterance(text)
  words.lang = document.documentElement.lang || 'en-GB'
  words.rate = 0.9
  words.onend = onEnd
  words.onerror = onEnd
  speechSynthesis.speak(words)
}

export function silence(): void {
  if (canSpeak()) speechSynthesis.cancel()
}
