import type { Book, BookForecast, Chapter } from '@nibquill/contract'
import { BOOK_FOR, type BookFor } from '@nibquill/core'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Choices } from '../kit/choices'
import { fullDayOf, sizeOf } from '../kit/dates'
import { Heading } from '../kit/layout'
import { Notice, ProblemNotice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { Progress } from '../kit/Progress'
import { Symbol } from '../kit/Symbol'
import { colours, corners, shadow, targets } from '../kit/theme'
import { useBookForecast, useBooks, useMakeBook, useWithdrawLinks } from './bookQueries'
import { strings } from './strings'

/** Asks for a term book, shows how far it is, and hands it over. */
export function BookBox({ pupilId, chapters }: { pupilId: string; chapters: Chapter[] }) {
  const books = useBooks(pupilId)
  const make = useMakeBook()
  const [chosen, setChosen] = useState<string | null>(null)
  const term = (chapters.find((chapter) => chapter.term.id === chosen) ?? chapters[0])?.term
  const [madeFor, setMadeFor] = useState<BookFor>('home')
  const forecast = useBookForecast({ pupilId, termId: term?.id ?? '', madeFor })
  if (!term) return null
  return (
    <View
      role="region"
      aria-label={strings.title}
      style={[
        { backgroundColor: colours.sheet, borderRadius: corners.button, padding: 18, gap: 12 },
        shadow,
      ]}
    >
      <Heading>{strings.title}</Heading>
      <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
        {strings.help}
      </Text>
      <View
        role="radiogroup"
        aria-label={strings.which}
        style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}
      >
        {chapters.map((chapter) => {
          const selected = chapter.term.id === term.id
          return (
            <Press
              key={chapter.term.id}
              role="radio"
              selected={selected}
              label={chapter.term.name}
              onPress={() => setChosen(chapter.term.id)}
              style={{
                minHeight: targets.adult,
                paddingHorizontal: 14,
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
      </View>
      <Choices
        label={strings.forWhom}
        options={BOOK_FOR.map((value) => ({ value, label: strings.madeFor[value] }))}
        value={madeFor}
        onChange={setMadeFor}
      />
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {strings.madeForHelp[madeFor]}
      </Text>
      {forecast.data && forecast.data.leftOut.length > 0 ? (
        <LeftOut pieces={forecast.data.leftOut} />
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12, alignItems: 'center' }}>
        <BigButton
          small
          label={strings.make}
          symbol="print"
          onPress={() => make.mutate({ pupilId, termId: term.id, madeFor })}
          busy={make.isPending}
          disabled={forecast.data?.pieces === 0}
        />
        <Text variant="bodyMedium">
          {forecast.data ? strings.forecast(forecast.data.pieces, forecast.data.pages) : ''}
        </Text>
      </View>
      {make.isError ? <ProblemNotice error={make.error} /> : null}
      {books.data?.map((book) => (
        <BookLine key={book.id} book={book} />
      ))}
    </View>
  )
}

/**
 * What the book will not hold, and why: before it is made, so that nobody looks for it on paper.
 */
function LeftOut({ pieces }: { pieces: BookForecast['leftOut'] }) {
  return (
    <Notice tone="attention" symbol="eyeoff">
      <View style={{ gap: 4 }}>
        <Text variant="labelMedium">{strings.leftOut(pieces.length)}</Text>
        {pieces.map(({ pieceId, title, reason, withoutConsent }) => (
          <Text key={pieceId} variant="bodySmall">
            {reason === 'folder'
              ? strings.folderClosed(title)
              : strings.noConsent(title, withoutConsent.join(', '))}
          </Text>
        ))}
      </View>
    </Notice>
  )
}

function BookLine({ book }: { book: Book }) {
  const withdraw = useWithdrawLinks()
  const [asking, setAsking] = useState(false)
  const going = book.state === 'waiting' || book.state === 'making'
  return (
    <View
      role="article"
      aria-label={`${book.term.name}, ${strings.madeFor[book.madeFor]}`}
      style={{ borderTopWidth: 1, borderTopColor: colours.rule, paddingTop: 12, gap: 8 }}
    >
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 12 }}>
        <Symbol
          name="book"
          size={28}
          colour={book.state === 'failed' ? colours.clay : colours.aubergine}
        />
        <View style={{ flex: 1, minWidth: 160 }}>
          <Text variant="titleSmall">{`${book.term.name}, ${strings.madeFor[book.madeFor].toLowerCase()}`}</Text>
          <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
            {book.state === 'ready'
              ? strings.ready(book.pageCount, sizeOf(book.sizeBytes ?? 0))
              : book.state === 'failed'
                ? strings.failed
                : book.state === 'waiting'
                  ? strings.waiting
                  : strings.making(book.pagesDone, book.pageCount)}
          </Text>
          {book.state === 'ready' ? (
            <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
              {book.stopped
                ? strings.stopped
                : book.openLinks > 0 && book.linksEndAt
                  ? strings.links(book.openLinks, fullDayOf(book.linksEndAt), book.madeFor)
                  : strings.noLinks}
            </Text>
          ) : null}
        </View>
        {book.state === 'ready' && !book.stopped ? (
          <BigButton
            small
            label={strings.download}
            symbol="download"
            tone="quiet"
            onPress={() => window.location.assign(`/api/book/${book.id}/file`)}
          />
        ) : null}
        {book.state === 'ready' && book.openLinks > 0 ? (
          <BigButton
            small
            label={strings.withdraw}
            symbol="link-off"
            tone="quiet"
            onPress={() => setAsking(true)}
          />
        ) : null}
      </View>
      {going ? (
        <Progress
          share={book.pageCount ? book.pagesDone / book.pageCount : 0}
          label={strings.making(book.pagesDone, book.pageCount)}
        />
      ) : null}
      <Ask
        visible={asking}
        title={strings.withdrawAsk}
        yes={strings.withdraw}
        tone="again"
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          withdraw.mutate(book.id)
        }}
      >
        {strings.withdrawHelp}
      </Ask>
    </View>
  )
}
