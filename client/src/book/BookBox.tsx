import type { Book, BookForecast, Chapter } from '@nibquill/contract'
import { BOOK_FOR, type BookFor } from '@nibquill/core'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Choices } from '../kit/choices'
import { fullDayOf, sizeOf } from '../kit/dates'
import { Bar, Stack } from '../kit/layout'
import { Notice, ProblemNotice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { Progress } from '../kit/Progress'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, space, targets } from '../kit/theme'
import { useBookForecast, useBooks, useMakeBook, useWithdrawLinks } from './bookQueries'
import { t } from './words'
import { Box, Hint } from '../kit/form'

/** Asks for a term book, shows how far it is, and hands it over. */
export function BookBox({ pupilId, chapters }: { pupilId: string; chapters: Chapter[] }) {
  const books = useBooks(pupilId)
  const make = useMakeBook()
  const [chosen, setChosen] = useState<string | null>(null)
  const term = (chapters.find((chapter) => chapter.term.id === chosen) ?? chapters[0])?.term
  const [madeFor, setMadeFor] = useState<BookFor>('home')
  const [marked, setMarked] = useState(false)
  const forecast = useBookForecast({ pupilId, termId: term?.id ?? '', madeFor })
  if (!term) return null
  return (
    <Box title={t('title')}>
      <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
        {t('help')}
      </Text>
      <WhichTerm chapters={chapters} termId={term.id} onChoose={setChosen} />
      <Choices
        label={t('forWhom')}
        options={BOOK_FOR.map((value) => ({ value, label: t(`madeFor.${value}`) }))}
        value={madeFor}
        onChange={setMadeFor}
      />
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {t(`madeForHelp.${madeFor}`)}
      </Text>
      {madeFor === 'school' ? (
        <Choices
          label={t('withMarks')}
          options={[false, true].map((value) => ({ value, label: t(`marked.${value}`) }))}
          value={marked}
          onChange={setMarked}
        />
      ) : null}
      {forecast.data && forecast.data.leftOut.length > 0 ? (
        <LeftOut pieces={forecast.data.leftOut} />
      ) : null}
      <Bar wrap gap="apart">
        <BigButton
          small
          label={t('make')}
          symbol="print"
          onPress={() =>
            make.mutate({
              pupilId,
              termId: term.id,
              madeFor,
              marked: madeFor === 'school' && marked,
            })
          }
          busy={make.isPending}
          disabled={forecast.data?.pieces === 0}
        />
        <Text variant="bodyMedium">
          {forecast.data
            ? t('forecast', { pieces: forecast.data.pieces, pages: forecast.data.pages })
            : ''}
        </Text>
      </Bar>
      {make.isError ? <ProblemNotice error={make.error} /> : null}
      {books.data?.map((book) => (
        <BookLine key={book.id} book={book} />
      ))}
    </Box>
  )
}

function WhichTerm({
  chapters,
  termId,
  onChoose,
}: {
  chapters: Chapter[]
  termId: string
  onChoose: (termId: string) => void
}) {
  return (
    <Bar role="radiogroup" aria-label={t('which')} wrap align="stretch">
      {chapters.map((chapter) => {
        const selected = chapter.term.id === termId
        return (
          <Press
            key={chapter.term.id}
            role="radio"
            selected={selected}
            label={chapter.term.name}
            onPress={() => onChoose(chapter.term.id)}
            style={{
              minHeight: targets.adult,
              paddingHorizontal: space.apart,
              justifyContent: 'center',
              borderRadius: corners.button,
              borderWidth: 1,
              borderColor: selected ? colours.aubergine : colours.rule,
              backgroundColor: selected ? colours.aubergineTint : colours.sheet,
            }}
          >
            <Text variant={selected ? 'labelMedium' : 'bodyMedium'}>{chapter.term.name}</Text>
          </Press>
        )
      })}
    </Bar>
  )
}

/**
 * What the book will not hold, and why: before it is made, so that nobody looks for it on paper.
 */
function LeftOut({ pieces }: { pieces: BookForecast['leftOut'] }) {
  return (
    <Notice tone="attention" symbol="eyeoff">
      <Stack gap="tight">
        <Text variant="labelMedium">{t('leftOut', { pieces: pieces.length })}</Text>
        {pieces.map(({ pieceId, title, reason, withoutConsent }) => (
          <Text key={pieceId} variant="bodySmall">
            {reason === 'folder'
              ? t('folderClosed', { title })
              : t('noConsent', { title, names: withoutConsent.join(', ') })}
          </Text>
        ))}
      </Stack>
    </Notice>
  )
}

/** How far it is, or what it came to. */
function standingOf(book: Book): string {
  if (book.state === 'ready')
    return t('ready', { pages: book.pageCount, size: sizeOf(book.sizeBytes ?? 0) })
  if (book.state === 'making') return t('making', { done: book.pagesDone, of: book.pageCount })
  return t(book.state)
}

/** What the codes on its pages open. */
function linksOf({ stopped, openLinks, linksEndAt, madeFor }: Book): string {
  if (stopped) return t('stopped')
  if (openLinks === 0 || !linksEndAt) return t('noLinks')
  return t('links', { open: openLinks, until: fullDayOf(linksEndAt), madeFor })
}

function BookLine({ book }: { book: Book }) {
  const withdraw = useWithdrawLinks()
  const [asking, setAsking] = useState(false)
  const going = book.state === 'waiting' || book.state === 'making'
  return (
    <Stack
      role="article"
      aria-label={`${book.term.name}, ${t(`madeFor.${book.madeFor}`)}`}
      gap="near"
      style={{ borderTopWidth: 1, borderTopColor: colours.rule, paddingTop: space.apart }}
    >
      <Bar wrap gap="apart">
        <DrawnSymbol
          name="book"
          size={28}
          colour={book.state === 'failed' ? colours.clay : colours.aubergine}
        />
        <View style={{ flex: 1, minWidth: 160 }}>
          <Text variant="titleSmall">{`${book.term.name}, ${t(`madeFor.${book.madeFor}`).toLowerCase()}`}</Text>
          <Hint>{standingOf(book)}</Hint>
          {book.marked ? <Hint>{t('isMarked')}</Hint> : null}
          {book.byFamily ? <Hint>{t('byFamily')}</Hint> : null}
          {book.state === 'ready' ? <Hint>{linksOf(book)}</Hint> : null}
        </View>
        {book.state === 'ready' && !book.stopped ? (
          <BigButton
            small
            label={t('download')}
            symbol="download"
            tone="quiet"
            onPress={() => window.location.assign(`/api/book/${book.id}/file`)}
          />
        ) : null}
        {book.state === 'ready' && book.openLinks > 0 ? (
          <BigButton
            small
            label={t('withdraw')}
            symbol="link-off"
            tone="quiet"
            onPress={() => setAsking(true)}
          />
        ) : null}
      </Bar>
      {going ? (
        <Progress
          share={book.pageCount ? book.pagesDone / book.pageCount : 0}
          label={t('making', { done: book.pagesDone, of: book.pageCount })}
        />
      ) : null}
      <Ask
        visible={asking}
        title={t('withdrawAsk')}
        yes={t('withdraw')}
        tone="again"
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          withdraw.mutate(book.id)
        }}
      >
        {t('withdrawHelp')}
      </Ask>
    </Stack>
  )
}
