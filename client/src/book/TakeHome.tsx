import type { ChildWork } from '@nibquill/contract'
import { useEffect, useRef, useState } from 'react'
import { View } from 'react-native'
import { Dialog, Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { sizeOf } from '../kit/dates'
import { Hint } from '../kit/form'
import { Bar, Stack } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { Overlay } from '../kit/Overlay'
import { Progress } from '../kit/Progress'
import { toast } from '../kit/Toast'
import { colours, space } from '../kit/theme'
import { useBook, useTakeHome } from './bookQueries'
import { t } from './words'

type Chapters = ChildWork['chapters']

/** For families: everything their page shows, a book a term. */
export function TakeHome({ pupilId, chapters }: { pupilId: string; chapters: Chapters }) {
  const [open, setOpen] = useState(false)
  return (
    <>
      <BigButton label={t('takeHome')} symbol="book" onPress={() => setOpen(true)} />
      <Overlay visible={open} title={t('takeHome')} width={520} onClose={() => setOpen(false)}>
        <Dialog.Content style={{ gap: space.clear }}>
          <Text variant="bodyMedium">{t('takeHomeHelp')}</Text>
          {chapters.map((chapter) => (
            <TermBook
              key={chapter.term.id}
              {...{ pupilId, chapter }}
              // With one term there is nothing to choose.
              atOnce={chapters.length === 1}
            />
          ))}
          <BigButton small tone="quiet" label={t('close')} onPress={() => setOpen(false)} />
        </Dialog.Content>
      </Overlay>
    </>
  )
}

type TermProps = { pupilId: string; chapter: Chapters[number]; atOnce: boolean }

/** Asked for, made while one looks on, saved. */
function TermBook({ pupilId, chapter: { term, pieces }, atOnce }: TermProps) {
  const take = useTakeHome()
  const book = useBook(take.data?.id ?? null)
  const { mutate } = take
  const make = () => mutate({ pupilId, termId: term.id })
  const begun = useRef(false)
  useEffect(() => {
    if (!atOnce || begun.current) return
    begun.current = true
    mutate({ pupilId, termId: term.id })
  }, [atOnce, mutate, pupilId, term.id])

  const made = book.data
  // Looked at once more: what it holds may have been taken back since.
  const save = async () => {
    const now = (await book.refetch()).data
    if (now?.state === 'ready' && !now.stopped)
      return window.location.assign(`/api/book/${now.id}/file`)
    toast(t('changed'))
    make()
  }
  const error = take.error ?? book.error
  const going = take.isPending || made?.state === 'waiting' || made?.state === 'making'
  return (
    <Stack role="group" aria-label={term.name} gap="near">
      <Bar wrap gap="apart">
        <View style={{ flex: 1, minWidth: 140 }}>
          <Text variant="titleSmall">{term.name}</Text>
          <Hint>
            {made?.state === 'ready'
              ? t('ready', { pages: made.pageCount, size: sizeOf(made.sizeBytes ?? 0) })
              : t('takeHomePieces', { pieces: pieces.length })}
          </Hint>
        </View>
        {made?.state === 'ready' ? (
          <BigButton small symbol="download" label={t('save')} onPress={() => void save()} />
        ) : (
          <BigButton
            small
            tone="quiet"
            symbol="book"
            label={t('make')}
            onPress={make}
            busy={going}
          />
        )}
      </Bar>
      {going && made ? (
        <Progress
          share={made.pageCount ? made.pagesDone / made.pageCount : 0}
          label={t('making', { done: made.pagesDone, of: made.pageCount })}
        />
      ) : null}
      {made?.state === 'failed' ? (
        <Text role="alert" style={{ color: colours.clay }}>
          {t('failed')}
        </Text>
      ) : null}
      {error ? <ProblemNotice error={error} onRetry={make} /> : null}
    </Stack>
  )
}
