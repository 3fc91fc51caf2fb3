import type { Part, Piece } from '@nibquill/contract'
import { judgedVersion, MAX_MESSAGE_LENGTH } from '@nibquill/core'
import type { Place } from '@nibquill/core/review/sitting'
import { canBeMarked } from '@nibquill/core/ink/markUp'
import { useState, type ReactNode } from 'react'
import { ScrollView, View, type ViewStyle } from 'react-native'
import { commentsWords, TeacherComments } from '../comments'
import { useFolders } from '../folders'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Bar, Stack, useWidth } from '../kit/layout'
import { isHere, NotYet } from '../kit/NotYet'
import { colours, space } from '../kit/theme'
import { SpokenWords } from '../media/VoiceRecorder'
import { usePiece } from '../pieces'
import { DeskHead } from './DeskHead'
import { DeskDialogs, type Open } from './DeskDialogs'
import { SendsByKey } from './dialogs'
import { Facts } from './Facts'
import { SecondLookBox } from './SecondLookBox'

import { useKeys } from './useKeys'
import { useVerdict, type Verdict } from './useVerdict'
import { VerdictBar } from './VerdictBar'
import { othersOf, toMarkUp, Work } from './Work'
import { t } from './words'

type Props = {
  pieceId: string
  place: Place
  onGo: (pieceId: string | null) => void
  /** Where the way back leads, on a phone; else to the tray. */
  back?: string
  /** After a decision, to what comes next; what is left to do waits until that is on screen. */
  onDecided: (also: () => void) => void
}

/**
 * The judging desk: the work as large as the screen allows, facts beside or below, two decisions
 * fixed where the thumb or keyboard finds them.
 */
export function Judging(props: Props) {
  const piece = usePiece(props.pieceId)
  if (!isHere(piece)) return <NotYet of={piece} />
  return <JudgingDesk {...props} piece={piece.data} />
}

function JudgingDesk({ piece, place, back, onGo, onDecided }: Props & { piece: Piece }) {
  const { nextId, previousId } = place
  const folders = useFolders().data ?? []
  const [open, setOpen] = useState<Open>(null)
  const close = () => setOpen(null)
  const [part, setPart] = useState<Part | null>(null)
  const [compared, setCompared] = useState(false)
  const waiting = piece.state === 'submitted'
  // What was handed in is judged, as it was handed in.
  const version = judgedVersion(piece.state, piece.versions)
  const title = version?.title ?? piece.title
  const verdict = useVerdict(piece, title, onDecided, () => onGo(piece.id))
  const approved = piece.state === 'approved'
  const folder = folders.find(({ id }) => id === verdict.folderId) ?? piece.folder
  useKeys(
    {
      a: () => waiting && verdict.send('approve'),
      s: () => (waiting || approved) && setOpen('send-back'),
      f: () => (waiting || approved) && setOpen('folder'),
      l: () => setOpen('second-look'),
      x: () => canBeBinned(piece) && verdict.throwAway(),
      d: () => version && part && canBeMarked(part.kind) && toMarkUp(piece.id, version.id, part.id),
      v: () => othersOf(piece, version).length > 0 && setCompared(!compared),
      m: () => focusOn(t('message')),
      c: () => openOrFocus(commentsWords('sayUnder')),
      j: () => nextId && onGo(nextId),
      k: () => previousId && onGo(previousId),
      '?': () => setOpen('keys'),
    },
    open === null,
  )
  const facts = (
    <FactsAndWords {...{ piece, version, verdict }} onSecondLook={() => setOpen('second-look')} />
  )
  const work = (
    <Work {...{ piece, version, title, compared }} onCompare={setCompared} onChosen={setPart} />
  )
  const head = (
    <DeskHead {...{ title, place, back, onGo }} goes={piece.goes} onKeys={() => setOpen('keys')} />
  )
  const bar = (
    <VerdictBar
      piece={piece}
      verdict={verdict}
      folderName={folder?.name ?? ''}
      onSendBack={() => setOpen('send-back')}
      onOtherFolder={() => setOpen('folder')}
    />
  )
  return (
    <View style={{ flex: 1 }}>
      <Layout {...{ head, work, facts, bar }} />
      <DeskDialogs {...{ open, piece, verdict, folder, folders }} title={title} onClose={close} />
    </View>
  )
}

/** Handed in by mistake, and nothing of it hangs in a folder. */
const canBeBinned = ({ state, approved }: Piece) =>
  !approved && (state === 'submitted' || state === 'returned')

const focusOn = (label: string) =>
  document.querySelector<HTMLElement>(`[aria-label="${label}"]`)?.focus()
/** What is folded away behind a button of its name is unfolded, and has the focus then. */
function openOrFocus(label: string): void {
  const buttons = [...document.querySelectorAll<HTMLElement>('[role="button"]')]
  const folded = buttons.find(({ textContent }) => textContent === label)
  if (folded) folded.click()
  else focusOn(label)
}

/** What is known of the work, and a field for words to its pupil while it waits. */
function FactsAndWords({
  piece,
  version,
  verdict,
  onSecondLook,
}: {
  piece: Piece
  version: Piece['versions'][number] | undefined
  verdict: Verdict
  onSecondLook: () => void
}) {
  return (
    <Facts
      piece={piece}
      version={version}
      foot={
        canBeBinned(piece) ? (
          <Bar>
            <BigButton
              small
              tone="quiet"
              symbol="bin"
              label={t('intoBin')}
              onPress={verdict.throwAway}
            />
          </Bar>
        ) : null
      }
    >
      <SecondLookBox piece={piece} onAsk={onSecondLook} />
      {piece.state === 'submitted' ? (
        <SendsByKey onSend={() => verdict.send('approve')}>
          <Stack gap="near">
            <Field
              label={t('message')}
              value={verdict.message}
              onChangeText={(message) => verdict.change({ message })}
              maxLength={MAX_MESSAGE_LENGTH}
              lines={2}
            />
            <SpokenWords
              label={t('sayIt')}
              said={verdict.said}
              onChange={(said) => verdict.change({ said })}
            />
          </Stack>
        </SendsByKey>
      ) : null}
      <TeacherComments piece={piece} />
    </Facts>
  )
}

type Places = { head: ReactNode; work: ReactNode; facts: ReactNode; bar: ReactNode }

/** The work as large as the screen allows; what is known of it beside it, below it on a phone. */
function Layout({ head, work, facts, bar }: Places) {
  const { wide, height } = useWidth()
  if (wide)
    return (
      <Bar align="stretch" gap="none" style={{ flex: 1 }}>
        <View style={{ flex: 1 }}>
          {head}
          {/* Reached by the keyboard before the work; it stands below it. */}
          <View style={BELOW}>{bar}</View>
          <View style={{ flex: 1, paddingHorizontal: space.clear, paddingBottom: space.apart }}>
            {work}
          </View>
        </View>
        <ScrollView style={BESIDE}>{facts}</ScrollView>
      </Bar>
    )
  return (
    <>
      {head}
      <ScrollView>
        <View style={{ height: Math.min(460, height * 0.45), paddingHorizontal: space.apart }}>
          {work}
        </View>
        {facts}
      </ScrollView>
      {bar}
    </>
  )
}

const BELOW = { order: 1 } as ViewStyle
const BESIDE = {
  flexGrow: 0,
  width: 290,
  borderLeftWidth: 1,
  borderLeftColor: colours.rule,
} as const
