import type { MarkUp, Part, Piece, Version } from '@nibquill/contract'
import { MOST_SHEETS, newInk, type InkDocument } from '@nibquill/core/ink/document'
import { canBeMarked, copyToMark, isMarked, sheetToMark } from '@nibquill/core/ink/markUp'
import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { router, useLocalSearchParams } from 'expo-router'
import { useEffect, useRef, useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { v7 as newId } from 'uuid'
import { Bar, Stack } from '../kit/layout'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { RoundButton } from '../kit/RoundButton'
import { colours, space } from '../kit/theme'
import { ToastPlace } from '../kit/Toast'
import { useTitle } from '../kit/useTitle'
import { inkQuery } from '../parts/inkQuery'
import { useMarkUps, usePiece, usePutMarkUp } from '../pieces'
import { pagesAtSchool } from './pages'
import { groundOf, TableFoot, TableHead, TableTop, useTable } from './Table'
import { savingWords, useSaving } from './useSaving'
import { t } from './words'

/** A teacher writes on a copy of a photo, a drawing or a paper that was handed in. */
export function MarkUpScreen() {
  const { id, version, part } = useLocalSearchParams<{
    id: string
    version: string
    part: string
  }>()
  const piece = usePiece(id)
  const marks = useMarkUps(id)
  if (!isHere(piece) || !isHere(marks)) return <NotYet of={[piece, marks]} />
  const on = piece.data.versions.find((one) => one.id === version)
  const found = on?.parts.find((one) => one.id === part)
  if (!on || !found || !canBeMarked(found.kind))
    return (
      <Stack style={{ padding: space.far }}>
        <Notice tone="attention" symbol="alert">
          {t('markGone')}
        </Notice>
      </Stack>
    )
  const mark = marks.data.find(({ versionId, partId }) => versionId === on.id && partId === part)
  return <Opening key={`${version} ${part}`} {...{ piece: piece.data, mark, on }} part={found} />
}

type On = { piece: Piece; on: Version; part: Part }

function Opening({ mark, ...at }: On & { mark: MarkUp | undefined }) {
  // As it was when it was opened: afterwards what is drawn here counts.
  const [begun] = useState(mark)
  const queries = useQueryClient()
  const [ink, setInk] = useState<InkDocument | null>(null)
  const [coming, setComing] = useState('')
  const [error, setError] = useState<unknown>(null)
  const open = useRef(() => {
    setError(null)
    const found = begun
      ? queries.fetchQuery(inkQuery(begun.mediaId))
      : copyOf(at.part, queries, setComing)
    void found.then(setInk, setError)
  })
  useEffect(() => open.current(), [])
  if (error) return <ProblemNotice error={error} onRetry={() => open.current()} />
  if (!ink)
    return coming ? (
      <Notice tone="news" symbol="file">
        {coming}
      </Notice>
    ) : (
      <Loading />
    )
  return <Writing {...at} ink={ink} seenMediaId={begun?.mediaId ?? null} />
}

/** A part as it was handed in, fixed on sheets of its own. @param say - How far it is. */
async function copyOf(
  part: Part,
  queries: QueryClient,
  say: (words: string) => void,
): Promise<InkDocument> {
  const ids = () => ({ sheetId: newId(), thingId: newId() })
  const of = (sheets: InkDocument['sheets']): InkDocument => ({ ...newInk('s'), sheets })
  switch (part.kind) {
    case 'photo':
      return of([sheetToMark(ids(), part.files.picture.mediaId, part)])
    case 'drawing':
      return copyToMark(await queries.fetchQuery(inkQuery(part.files.ink.mediaId)))
    case 'page': {
      const sheets: InkDocument['sheets'][number][] = []
      for await (const page of pagesAtSchool(part.files.paper.mediaId)) {
        sheets.push(sheetToMark(ids(), page.mediaId, page))
        if (sheets.length === MOST_SHEETS) break
        say(t('pageOf', { n: sheets.length, of: page.pages }))
      }
      return of(sheets)
    }
    default:
      throw new Error('nothing to write on')
  }
}

function Writing({
  piece,
  on,
  part,
  ink,
  seenMediaId,
}: On & { ink: InkDocument; seenMediaId: string | null }) {
  const put = usePutMarkUp(piece.id, on.id, part.id)
  const seen = useRef(seenMediaId)
  const saving = useSaving(ink, async (now) => {
    // What was rubbed out again was never written.
    const wanted = now && isMarked(now) ? now : null
    if (!wanted && !seen.current) return
    const marks = await put.mutateAsync({ ink: wanted, seenMediaId: seen.current })
    seen.current =
      marks.find(({ versionId, partId }) => versionId === on.id && partId === part.id)?.mediaId ??
      null
  })
  // In another ink than most children draw with.
  const table = useTable(saving.drawing, 'draw', { ink: ['madder'] })
  const title = t('markUpOf', { title: on.title || piece.title, name: piece.pupil.firstName })
  useTitle(title)
  const back = () =>
    void saving
      .save()
      .then(() => (router.canGoBack() ? router.back() : router.replace(`/tray/${piece.id}`)))
  return (
    <View style={{ flex: 1, backgroundColor: groundOf(table) }}>
      <Bar gap="apart" between style={HEAD}>
        <Bar gap="tight" style={{ flexShrink: 1 }}>
          <RoundButton label={t('backToPiece')} symbol="back" onPress={back} />
          <Text role="heading" aria-level={1} variant="titleMedium" style={{ flexShrink: 1 }}>
            {title}
          </Text>
        </Bar>
        <Text role="status" variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {savingWords(saving, isMarked(table.seen.ink))}
        </Text>
      </Bar>
      {piece.state === 'submitted' ? (
        <Notice tone="news" symbol="bulb">
          {t('markUpWhen', { name: piece.pupil.firstName })}
        </Notice>
      ) : null}
      {saving.error ? (
        <ProblemNotice error={saving.error} onRetry={() => void saving.save()} />
      ) : null}
      <TableHead table={table} name={null} />
      <TableTop table={table} />
      <ToastPlace />
      <TableFoot table={table} />
    </View>
  )
}

const HEAD = {
  ...{ backgroundColor: colours.sheet, paddingHorizontal: space.near },
  ...{ borderBottomWidth: 1, borderBottomColor: colours.rule },
}
