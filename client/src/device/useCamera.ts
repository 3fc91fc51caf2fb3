import { useEffect, useRef, useState, type RefObject } from 'react'
import { hasSeveralCameras, openCamera, type CameraTrouble, type Facing } from './camera'

type Camera = {
  /** Goes onto the `<video>` that shows the picture. */
  video: RefObject<HTMLVideoElement | null>
  stream: MediaStream | null
  trouble: CameraTrouble | null
  facing: Facing
  /** Turns to the other camera; null when there is only one. */
  turn: (() => void) | null
  tryAgain: () => void
}

/**
 * The tablet's camera for as long as a screen wants it.
 * @param wanted - False: it stays off.
 * @param hears - With its microphone.
 */
export function useCamera(wanted: boolean, first: Facing, widthPx: number, hears = false): Camera {
  const video = useRef<HTMLVideoElement>(null)
  const [facing, setFacing] = useState<Facing>(first)
  const [round, setRound] = useState(0)
  const [trouble, setTrouble] = useState<CameraTrouble | null>(null)
  const [stream, setStream] = useState<MediaStream | null>(null)
  const [several, setSeveral] = useState(false)
  useEffect(() => {
    if (!wanted) return
    let close: (() => void) | null = null
    let gone = false
    openCamera(facing, widthPx, hears).then(
      (camera) => {
        if (gone) return camera.close()
        close = camera.close
        setTrouble(null)
        setStream(camera.stream)
        void hasSeveralCameras().then((two) => !gone && setSeveral(two))
      },
      (why: CameraTrouble) => !gone && setTrouble(why),
    )
    return () => {
      gone = true
      close?.()
      setStream(null)
    }
  }, [facing, round, wanted, widthPx, hears])
  return {
    video,
    stream,
    trouble,
    facing,
    turn: several ? () => setFacing(facing === 'user' ? 'environment' : 'user') : null,
    tryAgain: () => {
      setTrouble(null)
      setRound(round + 1)
    },
  }
}
