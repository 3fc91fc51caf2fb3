import type { TrayLine } from '@nibquill/contract'
import { groupTray } from '@nibquill/core/review/groupTray'
import { router, useLocalSearchParams } from 'expo-router'
import { useEffect, useState } from 'react'
import { ScrollView, View, type ViewStyle } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Bar, Grid, Stack } from '../kit/layout'
import { Empty, Notice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Press } from '../kit/Press'
import { sentenceOf } from '../kit/problems'
import { Progress } from '../kit/Progress'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, space, targets } from '../kit/theme'
import { toast, ToastPlace } from '../kit/Toast'
import { sendVoice } from '../media/sendVoice'
import { Sheet } from '../parts/Sheet'
import { SendBackDialog } from './dialogs'
import { useTray } from './reviewQueries'
import { titleOfGroup } from './TrayList'
import { NOTHING_UNSENT, type Unsent } from './unsentWords'
import { useDecideMany, type Outcome } from './useDecideMany'
import { useTrayView } from './useTrayView'
import { UNDO_STANDS_MS } from './useVerdict'
import { t } from './words'

/** All that waits of one task, folder or pupil, side by side: decided at once where nothing need be said. */
export function TogetherScreen() {
  const { group } = useLocalSearchParams<{ group?: string }>()
  const { view } = useTrayView()
  const tray = useTray(view)
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = tray
  useEffect(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage()
  }, [hasNextPage, isFetchingNextPage, fetchNextPage])
  if (!isHere(tray) || hasNextPage) return <NotYet of={tray} />
  const waiting = tray.data.pages.flatMap(({ pieces }) => pieces)
  const pieces = groupTray(waiting, view.by).find(({ id }) => (id ?? '') === (group ?? ''))?.pieces
  return (
    <ContactSheet title={pieces ? titleOfGroup(pieces[0]!, view.by) : ''} waiting={pieces ?? []} />
  )
}

function ContactSheet({ title, waiting }: { title: string; waiting: readonly TrayLine[] }) {
  // What comes in meanwhile was not looked at, and neither is what was handed in anew.
  const [heading] = useState(title)
  const [seen, setSeen] = useState(() => new Map(waiting.map(goOf)))
  const [leftOut, setLeftOut] = useState<ReadonlySet<string>>(new Set())
  const [outcome, setOutcome] = useState<Outcome | null>(null)
  const [words, setWords] = useState<Unsent | null>(null)
  const { decide, takeBack, done } = useDecideMany()
  const shown = waiting.filter(({ id }) => seen.has(id))
  const isChosen = ({ id, submittedAt }: TrayLine) =>
    !leftOut.has(id) && seen.get(id) === submittedAt
  const chosen = shown.filter(isChosen)
  const turn = (piece: TrayLine) => {
    const others = [...leftOut].filter((id) => id !== piece.id)
    setLeftOut(new Set(isChosen(piece) ? [...others, piece.id] : others))
    setSeen(new Map([...seen, goOf(piece)]))
  }
  const send = async (move: 'approve' | 'send-back', { message, said }: Unsent) => {
    const voice = said ? { voiceId: await sendVoice(said.file) } : {}
    const now = await decide(chosen, { move, message: message.trim(), ...voice })
    const count = now.decided.length
    if (count + now.left.length > 0) setOutcome(now.left.length > 0 ? now : null)
    const undo = () =>
      void takeBack(now.decided).then((back) => toast(t('takenBack', { count: back })))
    if (count > 0)
      toast(t(move === 'approve' ? 'approvedMany' : 'sentBackMany', { count }), {
        ...{ undo, standsMs: UNDO_STANDS_MS },
      })
  }
  const start = (move: 'approve' | 'send-back', said: Unsent) =>
    void send(move, said).catch((error: unknown) => toast(sentenceOf(error)))
  return (
    <View style={{ flex: 1 }}>
      <ScrollView contentContainerStyle={SHEET}>
        <Head title={heading || t('together')} back="/tray" />
        {outcome ? <LeftUndecided outcome={outcome} /> : null}
        {shown.length > 0 ? (
          <Hint>{t('togetherHelp')}</Hint>
        ) : (
          <Empty symbol="tray" title={t('togetherDone')} />
        )}
        <Grid>
          {shown.map((piece) => (
            <Tile
              key={piece.id}
              piece={piece}
              chosen={isChosen(piece)}
              onTurn={() => turn(piece)}
            />
          ))}
        </Grid>
      </ScrollView>
      <ToastPlace />
      {shown.length > 0 ? (
        <Foot
          count={chosen.length}
          done={done}
          onApprove={() => start('approve', NOTHING_UNSENT)}
          onSendBack={() => setWords(NOTHING_UNSENT)}
        />
      ) : null}
      <SendBackDialog
        visible={words !== null}
        onClose={() => setWords(null)}
        firstName={t('theseMany', { count: chosen.length })}
        help={t('nextStepHelp')}
        words={words ?? NOTHING_UNSENT}
        onChange={(more) => setWords({ ...(words ?? NOTHING_UNSENT), ...more })}
        onSend={() => {
          const said = words ?? NOTHING_UNSENT
          setWords(null)
          start('send-back', said)
        }}
      />
    </View>
  )
}

/** Which go of it lies there. */
const goOf = ({ id, submittedAt }: TrayLine) => [id, submittedAt] as const

/** Each with why. */
const LeftUndecided = ({ outcome }: { outcome: Outcome }) => (
  <Notice tone="attention" symbol="alert">
    {outcome.left
      .map(({ piece, why }) => `${piece.pupil.firstName}, ${piece.title}: ${why}`)
      .join('\n')}
  </Notice>
)

function Tile({ piece, chosen, onTurn }: { piece: TrayLine; chosen: boolean; onTurn: () => void }) {
  const name = `${piece.pupil.firstName} ${piece.pupil.lastName}`
  const parts = piece.partCount > 1 ? t('partCount', { count: piece.partCount }) : ''
  const open = [t('open'), parts].filter(Boolean).join(' · ')
  return (
    <Stack gap="tight" style={{ width: TILE_PX }}>
      <Press
        role="checkbox"
        selected={chosen}
        label={`${name}, ${piece.title}`}
        onPress={onTurn}
        style={{ gap: space.close, opacity: chosen ? 1 : 0.45 }}
      >
        <View>
          <Sheet piece={piece} width={TILE_PX} />
          <View style={TICK}>
            <DrawnSymbol name={chosen ? 'tick' : 'untick'} size={26} colour={colours.aubergine} />
          </View>
        </View>
        <Text variant="titleSmall" numberOfLines={1}>
          {name}
        </Text>
        <Text variant="bodySmall" numberOfLines={1} style={{ color: colours.inkSoft }}>
          {piece.title}
        </Text>
      </Press>
      <Press
        role="link"
        label={t('openOne', { open, name, title: piece.title })}
        onPress={() => router.push(`/tray/${piece.id}`)}
        style={{ minHeight: targets.adult, justifyContent: 'center' }}
      >
        <Text variant="bodySmall" style={{ color: colours.sea }}>
          {open}
        </Text>
      </Press>
    </Stack>
  )
}

function Foot({
  count,
  done,
  onApprove,
  onSendBack,
}: {
  count: number
  /** How many are decided by now; null while nothing goes on. */
  done: number | null
  onApprove: () => void
  onSendBack: () => void
}) {
  return (
    <Stack gap="near" style={FOOT}>
      {done === null ? null : (
        <Progress share={done / Math.max(1, count)} label={t('togetherRuns', { done })} />
      )}
      <Bar align="stretch" style={{ maxWidth: 720, width: '100%', alignSelf: 'center' }}>
        <BigButton
          tone="again"
          symbol="again"
          label={t('sendBackMany', { count })}
          disabled={count === 0 || done !== null}
          onPress={onSendBack}
        />
        <BigButton
          grow
          tone="good"
          symbol="in-folder"
          label={t('approveMany', { count })}
          disabled={count === 0}
          busy={done !== null}
          onPress={onApprove}
        />
      </Bar>
    </Stack>
  )
}

const TILE_PX = 168
const SHEET: ViewStyle = {
  ...{ padding: space.clear, gap: space.clear, width: '100%', maxWidth: 1160, alignSelf: 'center' },
}
const TICK: ViewStyle = {
  ...{ position: 'absolute', left: 6, bottom: 6, borderRadius: corners.sheet },
  backgroundColor: colours.sheet,
}
const FOOT: ViewStyle = {
  ...{ backgroundColor: colours.sheet, padding: space.apart },
  ...{ borderTopWidth: 1, borderTopColor: colours.rule },
}
