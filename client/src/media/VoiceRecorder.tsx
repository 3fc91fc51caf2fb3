import { useEffect, useRef, useState } from 'react'
import { BigButton } from '../kit/BigButton'
import { Hint } from '../kit/form'
import { playingTime } from '../kit/playingTime'
import { record } from '../device/microphone'
import { canRecord, type Recording } from '../device/recording'
import { t } from './words'
import { Bar } from '../kit/layout'

/** Records a voice; what was said goes on as a file. */
export function VoiceRecorder({ label, onDone }: { label: string; onDone: (file: File) => void }) {
  const [seconds, setSeconds] = useState<number | null>(null)
  const [refused, setRefused] = useState(false)
  const running = useRef<Recording | null>(null)
  useEffect(() => {
    if (seconds === null) return
    const timer = setTimeout(() => setSeconds(seconds + 1), 1000)
    return () => clearTimeout(timer)
  }, [seconds])
  useEffect(() => () => running.current?.cancel(), [])
  if (!canRecord()) return null
  const start = async () => {
    try {
      running.current = await record(t('voiceName'))
      setRefused(false)
      setSeconds(0)
    } catch {
      setRefused(true)
    }
  }
  const stop = async () => {
    const file = await running.current?.stop()
    running.current = null
    setSeconds(null)
    if (file) onDone(file)
  }
  return (
    <Bar wrap>
      {seconds === null ? (
        <BigButton
          small
          tone="quiet"
          symbol="microphone"
          label={label}
          onPress={() => void start()}
        />
      ) : (
        <BigButton
          small
          tone="again"
          symbol="stop-recording"
          label={t('stop', {
            time: playingTime(1000 * seconds),
          })}
          onPress={() => void stop()}
        />
      )}
      {refused ? <Hint tone="fault">{t('noMicrophone')}</Hint> : null}
    </Bar>
  )
}
