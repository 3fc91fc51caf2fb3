import type { Piece, WritingPart } from '@nibquill/contract'
import { countWords, isOpen, MAX_WRITING_LENGTH } from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { useEffect, useRef, useState } from 'react'
import { TextInput, View, type TextStyle } from 'react-native'
import { Text } from 'react-native-paper'
import { v7 as newId } from 'uuid'
import { BigButton } from '../kit/BigButton'
import { Bar, Foot, Stack, useWidth } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { Starters } from '../kit/Starters'
import { colours, corners, RULED, space } from '../kit/theme'
import { ToastPlace } from '../kit/Toast'
import { useGoOnFromMaking } from './LastStep'
import { MakeHead } from './MakeHead'
import { WhatTeacherSaid } from './WhatTeacherSaid'
import { PieceTrouble, usePieceWork, useSavesItself, useShownPiece } from '../pieces'
import { namesOf } from '../words'
import { messages } from './messages'
import { t } from './words'
import { t as partsWords } from '../parts/words'

/**
 * A large ruled page to write on: a new piece, another part of one, or a part to go on with. It
 * begins with the first words, and saves itself.
 */
export function WriteScreen() {
  const { id, partId, taskId } = useLocalSearchParams<{
    id?: string
    partId?: string
    taskId?: string
  }>()
  const [fresh] = useState(() => ({ pieceId: newId(), partId: newId() }))
  const pieceId = id ?? fresh.pieceId
  const { piece, query } = useShownPiece(pieceId, id !== undefined)
  if (id && !piece && query.isError)
    return <ProblemNotice error={query.error} onRetry={() => void query.refetch()} />
  if (id && !piece) return <Loading />
  const part = piece?.parts.find((one) => one.id === (partId ?? fresh.partId))
  if (partId && part?.kind !== 'writing') return <Gone pieceId={pieceId} />
  return (
    <Writing
      key={pieceId}
      pieceId={pieceId}
      piece={piece}
      partId={partId ?? fresh.partId}
      part={part?.kind === 'writing' ? part : null}
      taskId={taskId ?? null}
    />
  )
}

function Gone({ pieceId }: { pieceId: string }) {
  return (
    <Stack style={{ padding: space.far }}>
      <Notice tone="attention" symbol="alert">
        {t('gone')}
      </Notice>
      <BigButton
        symbol="back"
        label={t('back')}
        onPress={() => router.replace(`/my-pieces/${pieceId}`)}
      />
    </Stack>
  )
}

type WritingProps = {
  pieceId: string
  piece: Piece | null
  partId: string
  /** Null until the first words are kept. */
  part: WritingPart | null
  taskId: string | null
}

function Writing({ pieceId, piece, partId, part, taskId }: WritingProps) {
  const { text, write, save } = useWriting({ pieceId, partId, part, taskId })
  const { tablet } = useWidth()
  const onFromHere = useGoOnFromMaking(pieceId, piece, taskId)
  const open = !piece || isOpen(piece.state)
  const goOn = async () => {
    await save()
    onFromHere()
  }
  const empty = text.trim() === ''
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      <MakeHead title={t('writeTitle')} />
      <View
        style={{ flex: 1, width: '100%', maxWidth: 860, alignSelf: 'center', padding: space.apart }}
      >
        <Stack gap="near">
          {piece ? <WhatTeacherSaid piece={piece} /> : null}
          <PieceTrouble pieceId={pieceId} />
          {text.length >= MAX_WRITING_LENGTH ? (
            <Notice tone="attention" symbol="bulb">
              {t('pageFull')}
            </Notice>
          ) : null}
        </Stack>
        <TextInput
          aria-label={t('writeHere')}
          value={text}
          onChangeText={write}
          editable={open}
          multiline
          autoFocus
          maxLength={MAX_WRITING_LENGTH}
          placeholder={t('writeHere')}
          placeholderTextColor={colours.inkSoft}
          style={[SHEET, { paddingHorizontal: tablet ? 36 : 18 }]}
        />
        <Beneath text={text} onStarter={open ? (words) => write(withStarter(text, words)) : null} />
      </View>
      <ToastPlace />
      {empty ? null : (
        <Foot>
          <BigButton label={t('goOn')} symbol="forward" onPress={() => void goOn()} />
        </Foot>
      )}
    </View>
  )
}

/** Lines move with the words. */
const SHEET = {
  flex: 1,
  ...RULED.words,
  ...RULED.paper,
  backgroundColor: colours.writingPaper,
  backgroundAttachment: 'local',
  paddingVertical: 0,
  borderRadius: corners.sheet,
  borderWidth: 1,
  borderColor: colours.rule,
  outlineColor: colours.aubergine,
} as TextStyle

/** Below the page: ways to begin, and how many words there are. */
function Beneath({
  text,
  onStarter,
}: {
  text: string
  onStarter: ((words: string) => void) | null
}) {
  return (
    <Stack gap="near" style={{ paddingTop: 10 }}>
      {onStarter ? (
        <Starters
          row
          of={namesOf(messages.openers).map((name) => t(`openers.${name}`))}
          label={t('starters')}
          onPick={onStarter}
        />
      ) : null}
      <Bar gap="none">
        <Text role="status" variant="bodyMedium" style={{ flex: 1, color: colours.inkSoft }}>
          {partsWords('words', { count: countWords(text) })}
        </Text>
        <Listen text={text.trim() || t('writeHelp')} />
      </Bar>
    </Stack>
  )
}

/** A new sentence begins after a space; on an empty page or a new line it begins at once. */
const withStarter = (text: string, words: string): string =>
  text === '' || /\s$/.test(text) ? text + words : `${text} ${words}`

/** The words of one part as they are typed: kept after a pause, and when one leaves. */
function useWriting({ pieceId, partId, part, taskId }: Omit<WritingProps, 'piece'>) {
  const work = usePieceWork(pieceId)
  const [text, setText] = useState(part?.text ?? '')
  const there = useRef(part !== null)
  // What this screen and the outbox agreed on last.
  const agreed = useRef(text)
  const save = useSavesItself(
    text,
    (a, b) => a === b,
    async (now) => {
      const seen = agreed.current
      agreed.current = now
      if (there.current) return work.write(partId, now, seen)
      there.current = true
      await work.addWriting(partId, now, taskId)
      // So that whoever comes back to this screen comes back to this writing.
      router.setParams({ id: pieceId, partId })
    },
  )
  // Written elsewhere, and nothing here that is not kept: what stands there is shown.
  const elsewhere = part?.text
  useEffect(() => {
    if (elsewhere === undefined || elsewhere === agreed.current) return
    setText((now) => (now === agreed.current ? elsewhere : now))
    if (text === agreed.current) agreed.current = elsewhere
    // Only what comes from elsewhere counts here.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [elsewhere])
  return { text, write: setText, save }
}
