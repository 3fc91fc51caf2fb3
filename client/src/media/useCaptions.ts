import type { Peaks } from '@nibquill/contract'
import { captionsOf } from '@nibquill/core/sound/captions'
import { useEffect } from 'react'
import { LANGUAGE } from '../words'
import { t } from './words'

/** What is said in a film, over it while it plays. @see HTML Standard, text tracks */
export function useCaptions(
  video: HTMLVideoElement | null,
  words: string,
  peaks: Peaks | null,
): void {
  useEffect(() => {
    if (!video || !peaks) return
    const cues = captionsOf(words, peaks).map(
      ({ fromMs, toMs, text }) => new VTTCue(fromMs / 1000, toMs / 1000, text),
    )
    if (cues.length === 0) return
    // One that was there stays there: a track cannot be taken away again.
    const track =
      [...video.textTracks].find(({ kind }) => kind === 'captions') ??
      video.addTextTrack('captions', t('captions'), LANGUAGE)
    track.mode = 'showing'
    for (const cue of cues) track.addCue(cue)
    return () => {
      for (const cue of cues) track.removeCue(cue)
    }
  }, [video, words, peaks])
}
