import type { DrawingPart, Part, Piece } from '@nibquill/contract'
import { isOpen } from '@nibquill/core'
import { MOST_SHEETS, MOST_THINGS, type InkDocument } from '@nibquill/core/ink/document'
import { copyOfStarter, hasMovables, isCopiedFrom } from '@nibquill/core/ink/starter'
import { useQuery } from '@tanstack/react-query'
import { router, useLocalSearchParams } from 'expo-router'
import { useEffect, useRef, useState } from 'react'
import { View } from 'react-native'
import { v7 as newId } from 'uuid'
import { BigButton } from '../kit/BigButton'
import { Stack } from '../kit/layout'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { colours, space } from '../kit/theme'
import { toast, ToastPlace } from '../kit/Toast'
import { MakeHead, useGoOnFromMaking, WhatTeacherSaid } from '../making'
import { inkQuery, LaterInk } from '../parts/inkQuery'
import { PartView } from '../parts/PartView'
import { PieceTrouble, usePieceWork, useShownPiece } from '../pieces'
import { useTasks } from '../tasks'
import type { Drawing } from './drawing'
import { LayPhotos, layPages, LayPicture } from './LayPicture'
import { pagesAtSchool } from './pages'
import { groundOf, Places, TableFoot, TableHead, TableTop, useTable, type Table } from './Table'
import { useDrawing } from './useDrawing'
import { t } from './words'

/** Full screen: a sheet, a roll of pens and wells of ink. What is drawn is kept line by line. */
export function DrawScreen() {
  const { id, partId, taskId, over } = useLocalSearchParams<{
    id?: string
    partId?: string
    taskId?: string
    /** A photo of the piece, or a paper, to be drawn on. */
    over?: string
  }>()
  const [fresh] = useState(() => ({ pieceId: newId(), partId: newId() }))
  const pieceId = id ?? fresh.pieceId
  const tasks = useTasks()
  const { piece, query } = useShownPiece(pieceId, id !== undefined)
  if (id && !piece && query.isError)
    return <ProblemNotice error={query.error} onRetry={() => void query.refetch()} />
  if ((id && !piece) || (taskId && tasks.isPending)) return <Loading />
  const wanted = partId ?? fresh.partId
  const part = piece?.parts.find((one) => one.id === wanted)
  const began = part?.kind === 'drawing' ? part : null
  // Begun on this very screen, it is there a moment after it is in the address.
  if (partId && partId !== fresh.partId && !began)
    return <Instead pieceId={pieceId} words={t('gone')} />
  const starter = tasks.data?.find((task) => task.id === taskId)?.sheet ?? null
  if (piece && !isOpen(piece.state)) return <Instead pieceId={pieceId} words={t('closed')} />
  return (
    <OpenDrawing
      key={wanted}
      pieceId={pieceId}
      piece={piece}
      partId={wanted}
      part={began}
      starter={starter}
      over={piece?.parts.find(({ id }) => id === over) ?? null}
      taskId={taskId ?? null}
    />
  )
}

/** The teacher has another sheet by now and offers it: it comes to lie after what is there. */
function NewFromTeacher({
  drawing,
  ink,
  taskId,
}: {
  drawing: Drawing
  ink: InkDocument
  taskId: string | null
}) {
  const sheet = useTasks().data?.find(({ id }) => id === taskId)?.sheet
  const wanted = sheet?.offered && !isCopiedFrom(ink, sheet.mediaId) ? sheet.mediaId : ''
  const found = useQuery(inkQuery(wanted)).data
  if (wanted === '' || !found) return null
  const { sheets } = copyOfStarter(found, wanted)
  if (ink.sheets.length + sheets.length > MOST_SHEETS) return null
  const putIn = () => {
    drawing.act(sheets.map((one) => ({ kind: 'put-sheet', sheet: one, below: null })))
    drawing.turnTo(sheets[0]!.id)
    toast(t('sheetPutIn'), { undo: () => drawing.undo() })
  }
  return (
    <Notice
      tone="attention"
      symbol="bulb"
      action={<BigButton small label={t('putItIn')} onPress={putIn} />}
    >
      {t('newFromTeacher')}
    </Notice>
  )
}

function Instead({ pieceId, words, part }: { pieceId: string; words: string; part?: DrawingPart }) {
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      <MakeHead title={t('title')} />
      <Stack style={{ padding: space.far, flex: 1 }}>
        <Notice tone="attention" symbol="alert">
          {words}
        </Notice>
        {part ? (
          <View style={{ flex: 1 }}>
            <PartView view="large" part={part} alt={t('title')} />
          </View>
        ) : null}
        <BigButton
          symbol="back"
          label={t('back')}
          onPress={() => router.replace(`/my-pieces/${pieceId}`)}
        />
      </Stack>
    </View>
  )
}

type OpenProps = {
  pieceId: string
  piece: Piece | null
  partId: string
  part: DrawingPart | null
  over: Part | null
  /** Of the task, to begin with. */
  starter: { mediaId: string } | null
  taskId: string | null
}

function OpenDrawing(props: OpenProps) {
  const { pieceId, partId } = props
  // One that begins here becomes a part with its first line, and goes on as it began.
  const [begins] = useState(props.part === null)
  const part = begins ? null : props.part
  const { drawing, error, tryAgain } = useDrawing({
    ...{ pieceId, partId, part, taskId: props.taskId, over: props.over, starter: props.starter },
    // So that whoever comes back to this screen comes back to this drawing.
    onBegun: () => router.setParams({ id: pieceId, partId }),
  })
  if (error instanceof LaterInk && part)
    return <Instead pieceId={pieceId} words={t('later')} part={part} />
  if (error) return <ProblemNotice error={error} onRetry={tryAgain} />
  if (!drawing) return <Loading />
  return <AtWork {...props} drawing={drawing} />
}

/** The pages of a paper come to lie on a new drawing. @returns how far that is, in words */
function usePaperUnder(over: Part | null, { drawing, arranging }: Table): string {
  const [coming, setComing] = useState('')
  const paperId = over?.kind === 'page' ? over.files.paper.mediaId : null
  const begun = useRef(false)
  useEffect(() => {
    const fresh = drawing.getSnapshot().ink.sheets.every(({ things }) => things.length === 0)
    if (!paperId || begun.current || !fresh) return
    begun.current = true
    const first = () => drawing.turnTo(drawing.getSnapshot().ink.sheets[0]!.id)
    void layPages(pagesAtSchool(paperId), arranging, setComing)
      .then(first)
      .finally(() => setComing(''))
    // Once, when it is opened.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [paperId])
  return coming
}

function AtWork(props: OpenProps & { drawing: Drawing }) {
  const { pieceId, piece, starter, taskId, drawing } = props
  // A sheet to sort and to fill in begins with moving.
  const fromSheet = starter !== null || (piece?.task ?? null) !== null
  const table = useTable(
    drawing,
    fromSheet && hasMovables(drawing.getSnapshot().ink) ? 'arrange' : 'draw',
  )
  const goOn = useGoOnFromMaking(pieceId, piece, taskId)
  const work = usePieceWork(pieceId)
  const { seen, arranging } = table
  // It goes by itself; what lays it on waits for it.
  const send = (mediaId: string, file: File) => {
    void work.sendPicture(mediaId, file)
    return Promise.resolve()
  }
  const coming = usePaperUnder(props.over, table)
  const anything = seen.ink.sheets.some(({ things }) => things.length > 0)
  return (
    <View style={{ flex: 1, backgroundColor: groundOf(table) }}>
      <MakeHead
        title={t('title')}
        middle={<Places table={table} />}
        end={anything ? <BigButton small label={t('goOn')} onPress={goOn} /> : null}
      />
      <Stack gap="near" style={{ paddingHorizontal: space.apart }}>
        {piece ? <WhatTeacherSaid piece={piece} /> : null}
        <PieceTrouble pieceId={pieceId} />
        {coming ? (
          <Notice tone="news" symbol="file">
            {coming}
          </Notice>
        ) : null}
        <NewFromTeacher drawing={drawing} ink={seen.ink} taskId={piece?.task?.id ?? null} />
        {seen.sheet.things.length >= MOST_THINGS ? (
          <Notice tone="attention" symbol="bulb">
            {t('full')}
          </Notice>
        ) : null}
      </Stack>
      <TableHead table={table} name={piece?.title || t('title')} />
      <TableTop table={table} />
      <ToastPlace />
      <TableFoot
        table={table}
        more={
          <>
            <LayPicture send={send} arranging={arranging} />
            <LayPhotos piece={piece} arranging={arranging} />
          </>
        }
      />
    </View>
  )
}
