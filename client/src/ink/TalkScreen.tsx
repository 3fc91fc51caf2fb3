import type { Piece } from '@nibquill/contract'
import { drawOn } from '@nibquill/core/ink/changes'
import { emptySheet, newInk, type InkSheet } from '@nibquill/core/ink/document'
import { LONGEST_TALK_MS, TalkNotes, type Talk } from '@nibquill/core/ink/talk'
import { useQuery } from '@tanstack/react-query'
import { useLocalSearchParams } from 'expo-router'
import { useEffect, useRef, useState } from 'react'
import { View, type ViewStyle } from 'react-native'
import { Text } from 'react-native-paper'
import { v7 as newId } from 'uuid'
import { record } from '../device/microphone'
import type { Recorded } from '../device/useRecorded'
import { useWillAsk } from '../device/useWillAsk'
import { BigButton } from '../kit/BigButton'
import { Bar, Stack } from '../kit/layout'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { playingTime } from '../kit/playingTime'
import { colours, space } from '../kit/theme'
import { toast, ToastPlace } from '../kit/Toast'
import { MakeHead, OpenPiece, Round, Told, useOneGo } from '../making'
import { inkOf, useOutbox } from '../outbox/OutboxContext'
import { inkQuery } from '../parts/inkQuery'
import { TalkHere } from '../parts/TalkPlayer'
import { useShownPiece } from '../pieces'
import { Drawing } from './drawing'
import { inkOver, layUnder } from './over'
import { pagesAtSchool, sheetWithPage } from './pages'
import { TableFoot, TableHead, TableTop, useTable } from './Table'
import { t } from './words'

/** A talk-through: drawn and said at once, looked at, kept, or done again. */
export function TalkScreen() {
  const { id = '', over } = useLocalSearchParams<{ id?: string; over?: string }>()
  const { piece } = useShownPiece(id, id !== '' && over !== undefined)
  const start = useStart(piece, over)
  if (start.error) return <ProblemNotice error={start.error} onRetry={start.tryAgain} />
  if (!start.sheet) return <Loading />
  return <OnSheet start={start.sheet} />
}

type Start = { sheet: InkSheet | null; error: unknown; tryAgain: () => void }
/** What is talked about: a photo, a drawing or the first page of a paper, as it is now; else an empty sheet. */
function useStart(piece: Piece | null, over: string | undefined): Start {
  const outbox = useOutbox()
  const part = piece?.parts.find(({ id }) => id === over)
  const drawn = part?.kind === 'drawing' ? part : null
  const query = useQuery(inkQuery(drawn?.files.ink.mediaId ?? ''))
  const paperId = part?.kind === 'page' ? part.files.paper.mediaId : ''
  const page = useQuery({
    queryKey: ['page-to-talk-about', paperId],
    queryFn: async () => (await pagesAtSchool(paperId).next()).value ?? null,
    enabled: paperId !== '',
    retry: false,
    // A picture of its own, each time one talks about it.
    gcTime: 0,
  })
  // What is drawn on it later has nothing to do with this any more.
  const [sheet, setSheet] = useState<InkSheet | null>(over ? null : emptySheet(newId()))
  const found = sheet ? null : foundOn()
  useEffect(() => {
    if (found) setSheet(found)
  }, [found])
  return {
    sheet,
    error: sheet ? null : (query.error ?? page.error),
    tryAgain: () => void (paperId ? page : query).refetch(),
  }

  function foundOn(): InkSheet | null {
    if (drawn) {
      const ink = query.data && drawOn(query.data, inkOf(outbox.getSnapshot(), drawn.id))
      return ink?.sheets[0] ?? null
    }
    if (!piece) return null
    if (paperId) return page.data ? sheetWithPage(page.data) : null
    if (part?.kind !== 'photo') return emptySheet(newId())
    const bare = inkOver(part)
    return drawOn(bare, layUnder(part, bare.sheets[0]!)).sheets[0]!
  }
}

function OnSheet({ start: sheet }: { start: InkSheet }) {
  const notes = useRef(new TalkNotes(sheet, () => 0))
  const [drawing, setDrawing] = useState<Drawing | null>(null)
  const { recording, keepAndGoOn, ...place } = useOneGo(
    'talk',
    (keep) => record(t('talkName'), keep),
    LONGEST_TALK_MS,
    ({ quiet }) => !quiet || notes.current.talk.steps.length > 0,
    () => notes.current.talk,
  )
  const asks = useWillAsk()
  const { state, runMs, levels, ms, start, stop, pause, again, takeBack } = recording
  const begin = () => {
    const fresh = new TalkNotes(sheet, ms)
    notes.current = fresh
    setDrawing(new Drawing({ ...newInk(sheet.id), sheets: [sheet] }, (done) => fresh.add(done)))
    void start()
  }
  const onceMore = (said: Recorded) => {
    const before = notes.current
    again()
    toast(t('talkedAway'), {
      undo: () => {
        notes.current = before
        takeBack(said)
      },
    })
  }
  return (
    <View style={{ flex: 1, backgroundColor: colours.desk }}>
      <MakeHead
        title={t('talkTitle')}
        middle={
          state.at === 'recording' ? (
            <Time ms={runMs} level={levels.at(-1) ?? 0} paused={state.paused} />
          ) : undefined
        }
        end={
          state.at === 'recording' ? (
            <BigButton small label={t('talkStop')} onPress={() => void stop()} />
          ) : null
        }
      />
      <OpenPiece {...place} closed={t('closed')}>
        {state.at === 'recording' && drawing ? (
          <AtTalk drawing={drawing} paused={state.paused} onPause={pause} />
        ) : state.at === 'recorded' ? (
          <Looked
            said={state.recorded}
            talk={notes.current.talk}
            onKeep={() => void keepAndGoOn(state.recorded)}
            onAgain={() => onceMore(state.recorded)}
          />
        ) : (
          <Stack gap="clear" style={STAGE}>
            {state.at === 'ready' && state.trouble ? (
              <Notice tone="attention" symbol="microphone">
                {t(state.trouble === 'refused' ? 'talkRefused' : 'talkMissing')}
              </Notice>
            ) : null}
            <Told
              words={t(state.at === 'asking' ? 'talkAllow' : asks ? 'talkBefore' : 'talkHelp')}
            />
            <Round label={t('talkStart')} symbol="quill" onPress={begin} />
          </Stack>
        )}
      </OpenPiece>
      <ToastPlace />
    </View>
  )
}

/** The table, while the clock runs; a hand that draws in a pause would be on no clock. */
function AtTalk({
  drawing,
  paused,
  onPause,
}: {
  drawing: Drawing
  paused: boolean
  onPause: () => void
}) {
  const table = useTable(drawing)
  const rests = { ...table.work, begin: () => null }
  return (
    <>
      <TableHead table={table} name={null} />
      <TableTop table={paused ? { ...table, work: rests } : table} />
      <Bar gap="near" style={{ justifyContent: 'center', padding: space.tight }}>
        <BigButton
          small
          tone={paused ? undefined : 'quiet'}
          symbol={paused ? 'microphone' : 'pause'}
          label={t(paused ? 'talkOn' : 'talkPause')}
          onPress={onPause}
        />
      </Bar>
      <TableFoot table={table} />
    </>
  )
}

function Looked({
  said,
  talk,
  onKeep,
  onAgain,
}: {
  said: Recorded
  talk: Talk
  onKeep: () => void
  onAgain: () => void
}) {
  return (
    <Stack gap="apart" style={LOOKED}>
      {said.quiet || said.tooLoud ? (
        <Notice tone="attention" symbol="bulb">
          {t(said.quiet ? 'talkQuiet' : 'talkTooLoud')}
        </Notice>
      ) : null}
      <Told words={t('talkedHelp')} />
      <TalkHere file={said.file} ms={said.ms} talk={talk} alt={t('talkTitle')} />
      <BigButton label={t('talkKeep')} symbol="check" onPress={onKeep} />
      <BigButton tone="quiet" symbol="again" label={t('talkAgain')} onPress={onAgain} />
    </Stack>
  )
}

/** How long it is; a mark beside it that grows with what is heard, or that the clock stands. */
function Time({ ms, level, paused }: { ms: number; level: number; paused: boolean }) {
  const px = paused ? 12 : MARK_PX.least + (MARK_PX.most - MARK_PX.least) * Math.min(1, level * 2)
  return (
    <Bar gap="close">
      <View style={{ width: MARK_PX.most, alignItems: 'center' }} aria-hidden>
        <View
          style={{
            ...{ width: px, height: px, borderRadius: paused ? 2 : px / 2 },
            backgroundColor: paused ? colours.inkSoft : colours.clay,
          }}
        />
      </View>
      <Text role="timer" variant="titleMedium">
        {t('talkTime', { time: playingTime(ms), left: playingTime(LONGEST_TALK_MS - ms) })}
      </Text>
    </Bar>
  )
}
const MARK_PX = { least: 8, most: 22 }

const STAGE: ViewStyle = {
  ...{ flex: 1, alignItems: 'center', justifyContent: 'center', padding: space.far },
}
const LOOKED: ViewStyle = {
  ...{ flex: 1, padding: space.clear, width: '100%', maxWidth: 860, alignSelf: 'center' },
}
