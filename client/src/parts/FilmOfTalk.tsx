import { TalkFilm } from '@nibquill/contract'
import { FILM_OF_TALK } from '@nibquill/core'
import { useMutation } from '@tanstack/react-query'
import { useEffect, useRef } from 'react'
import { api } from '../api/api'
import { BigButton } from '../kit/BigButton'
import { Bar } from '../kit/layout'
import { sentenceOf } from '../kit/problems'
import { toast } from '../kit/Toast'
import { saveFile } from '../media/saveFile'
import { t } from './words'

const ASK_EVERY_MS = 2000
/** Five minutes of talk take about four to be made, and others may come before. */
const PATIENCE_MS = 15 * 60_000

/**
 * A talk-through as a film, to be kept outside of Nibquill: the school makes it when it is asked
 * for. Who leaves before it is there asks again later.
 */
export function FilmOfTalk({ inkId, name }: { inkId: string; name: string }) {
  const gone = useRef(new AbortController())
  useEffect(() => {
    gone.current = new AbortController()
    return () => gone.current.abort()
  }, [])
  const save = useMutation({
    mutationFn: async () => {
      const { signal } = gone.current
      const began = Date.now()
      while (!(await api.post(`/media/${inkId}/film`, TalkFilm)).ready) {
        if (signal.aborted) return
        if (Date.now() - began > PATIENCE_MS) return toast(t('filmLater'))
        await new Promise((wait) => setTimeout(wait, ASK_EVERY_MS))
      }
      if (!signal.aborted) await saveFile(`/api/media/${inkId}/${FILM_OF_TALK}`, `${name}.mp4`)
    },
    onError: (error) => toast(sentenceOf(error)),
  })
  return (
    <Bar>
      <BigButton
        small
        tone="quiet"
        symbol="download"
        label={t(save.isPending ? 'filmComing' : 'saveFilm')}
        busy={save.isPending}
        onPress={() => save.mutate()}
      />
    </Bar>
  )
}
