import { useEffect, useRef, useState } from 'react'
import { RoundButton } from './RoundButton'
import { canSpeak, play, say } from './speech'

import { colours } from './theme'
import { t } from './words'

type Props = {
  text: string
  /**
   * Where somebody has spoken the words: their voice wins over the browser's, which stands in when
   * it cannot be played.
   */
  recording?: string | undefined
  colour?: string
}

/** Every instruction to a pupil can be heard. Hidden where nothing can sound. */
export function Listen({ text, recording, colour = colours.sea }: Props) {
  const [sounding, setSounding] = useState(false)
  const stop = useRef<() => void>(undefined)
  useEffect(() => () => stop.current?.(), [])
  if (!recording && !canSpeak()) return null
  const over = () => setSounding(false)
  const speak = () => {
    if (!canSpeak()) return
    setSounding(true)
    stop.current = say(text, over)
  }
  const toggle = () => {
    if (sounding) return stop.current?.()
    if (!recording) return speak()
    setSounding(true)
    stop.current = play(new Audio(recording), over, speak)
  }
  return (
    <RoundButton
      label={sounding ? t('stopListening') : t('listen')}
      symbol={sounding ? 'stop-listening' : 'listen'}
      onPress={toggle}
      colour={colour}
    />
  )
}
