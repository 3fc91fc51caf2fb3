import type { RollOverPlan, SchoolYear } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState, type ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { v7 as newId } from 'uuid'
import { schoolNow } from '../kit/clock'
import { dayOf, schoolToday } from '../kit/dates'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Box, Hint, Select } from '../kit/form'
import { Head } from '../kit/Head'
import { Bar, Page, SidesInTurn } from '../kit/layout'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { colours, space } from '../kit/theme'
import { toast } from '../kit/Toast'
import {
  schoolWords,
  useLatestRollOver,
  useMakeClass,
  useRollOverPlan,
  useTurnYear,
  useUndoTurn,
  useYears,
} from '../school'
import { t } from './words'

const LEAVES = 'leaves'
/** How long the turn can be taken back where it was done; afterwards at the head of the page. */
const UNDO_STANDS_MS = 20_000

/** The year's turn: each pupil's next class, looked at before it is done in one step. */
export function RollOverScreen() {
  const years = useYears()
  if (!isHere(years)) return <NotYet of={years} />
  // The turn that lies ahead, or has just passed: last year's is history.
  const recent = schoolToday(new Date(schoolNow().getTime() - 60 * 86_400_000))
  const all = [...years.data.years].reverse()
  const begun = all.findLast(({ classCount }) => classCount > 0)?.startsOn ?? ''
  // A later year may be without classes still: it can begin with the names of this one's.
  const inOrder = all.filter(({ classCount, startsOn }) => classCount > 0 || startsOn > begun)
  const ahead = (inOrder.at(-1)?.startsOn ?? '') > recent
  const head = (
    <>
      <Head title={t('rollOver')} back="/year" />
      <Hint>{t('rollHelp')}</Hint>
      <LatestTurn />
    </>
  )
  if (inOrder.length >= 2 && ahead) return <ChooseYears years={inOrder} head={head} />
  return (
    <Page>
      {head}
      <Notice tone="attention" symbol="year">
        {t('rollNeedsYear')}
      </Notice>
      <Bar wrap>
        <BigButton
          label={schoolWords('newYear')}
          symbol="plus"
          onPress={() => router.push('/year/new')}
        />
      </Bar>
    </Page>
  )
}

function LatestTurn() {
  const latest = useLatestRollOver()
  const undo = useUndoTurn()
  if (!latest.data) return null
  const { id, fromYearName, toYearName, moved, left, undoable } = latest.data
  return (
    <Box>
      <Text variant="bodyMedium">
        {t('rollDone', { from: fromYearName, to: toYearName, moved, left })}
      </Text>
      {undoable ? (
        <Bar wrap>
          <BigButton
            small
            tone="again"
            symbol="undo"
            label={t('undo')}
            busy={undo.isPending}
            onPress={() => undo.mutate(id, { onSuccess: () => toast(t('undone')) })}
          />
        </Bar>
      ) : (
        <Hint>{t('final')}</Hint>
      )}
      {undo.isError ? <ProblemNotice error={undo.error} /> : null}
    </Box>
  )
}

function ChooseYears({ years, head }: { years: SchoolYear[]; head: ReactNode }) {
  const [fromId, setFromId] = useState(years.at(-2)!.id)
  const [toId, setToId] = useState(years.at(-1)!.id)
  const plan = useRollOverPlan(fromId, toId)
  const options = years.map(({ id, name }) => ({ value: id, label: name }))
  const from = years.find(({ id }) => id === fromId)
  const early = from !== undefined && schoolToday(schoolNow()) < from.endsOn
  const choice = (
    <>
      {head}
      <Bar wrap>
        <Select label={t('rollFrom')} value={fromId} options={options} onChange={setFromId} />
        <Select label={t('rollTo')} value={toId} options={options} onChange={setToId} />
      </Bar>
      {early ? (
        <Notice tone="attention" symbol="clock">
          {t('rollEarly', { year: from.name, ends: dayOf(from.endsOn) })}
        </Notice>
      ) : null}
    </>
  )
  if (plan.data)
    return (
      <PlanPage
        key={`${fromId}${toId}`}
        plan={plan.data}
        fromYearId={fromId}
        toYearId={toId}
        head={choice}
      />
    )
  return (
    <Page sides>
      {choice}
      {plan.isError ? (
        <ProblemNotice error={plan.error} onRetry={() => void plan.refetch()} />
      ) : (
        <Loading />
      )}
    </Page>
  )
}

/** Who goes where, class by class; the one step that does it stays in sight, with how many it moves. */
function PlanPage({
  plan,
  fromYearId,
  toYearId,
  head,
}: {
  plan: RollOverPlan
  fromYearId: string
  toYearId: string
  head: ReactNode
}) {
  const { turn, turnNow, busy } = useTurn(fromYearId, toYearId)
  const [asking, setAsking] = useState(false)
  const [chosen, setChosen] = useState<Record<string, string>>({})
  const everyone = plan.classes.flatMap(({ pupils }) => pupils)
  const placeOf = (pupil: { id: string; toClassId: string | null }) =>
    chosen[pupil.id] ?? pupil.toClassId ?? LEAVES
  const options = [
    ...plan.nextClasses.map(({ id, name, yearGroup }) => ({
      value: id,
      label: [name, yearGroup].filter(Boolean).join(', '),
    })),
    { value: LEAVES, label: t('leaves') },
  ]
  const moves = everyone.map((pupil) => ({
    pupilId: pupil.id,
    toClassId: placeOf(pupil) === LEAVES ? null : placeOf(pupil),
  }))
  const left = moves.filter(({ toClassId }) => toClassId === null).length
  const moved = moves.length - left
  return (
    <Page
      sides
      foot={
        <BigButton
          label={t('rollDoCount', { moved, left })}
          symbol="forward"
          busy={busy}
          disabled={everyone.length === 0}
          onPress={() => setAsking(true)}
        />
      }
    >
      {head}
      {plan.nextClasses.length === 0 ? (
        <CopyClasses classes={plan.classes} toYearId={toYearId} />
      ) : null}
      <SidesInTurn>
        {plan.classes.map(({ id, name, yearGroup, pupils }) => (
          <ClassMoves
            key={id}
            title={[name, yearGroup].filter(Boolean).join(', ')}
            pupils={pupils}
            options={options}
            placeOf={placeOf}
            onMove={(moved) => setChosen({ ...chosen, ...moved })}
          />
        ))}
      </SidesInTurn>
      <Hint tone={plan.piecesWaiting > 0 ? 'attention' : 'soft'}>
        {t('rollCounts', { folders: plan.foldersToPutAway, waiting: plan.piecesWaiting })}
      </Hint>
      {turn.isError ? <ProblemNotice error={turn.error} /> : null}
      <Ask
        visible={asking}
        title={t('rollAsk', { moved, left })}
        yes={t('rollDo')}
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          turnNow(moves)
        }}
      >
        {t('rollCounts', { folders: plan.foldersToPutAway, waiting: plan.piecesWaiting })}
      </Ask>
    </Page>
  )
}

/** The next year has no classes yet: it can begin with the names of this one's. */
function CopyClasses({
  classes,
  toYearId,
}: {
  classes: RollOverPlan['classes']
  toYearId: string
}) {
  const make = useMakeClass()
  const copy = async () => {
    for (const { name, yearGroup } of classes)
      await make.mutateAsync({
        id: newId(),
        input: { schoolYearId: toYearId, name, yearGroup, mine: false },
      })
  }
  return (
    <Box title={t('noNextClasses')}>
      <Hint>{t('copyClassesHelp', { names: classes.map(({ name }) => name).join(', ') })}</Hint>
      {make.isError ? <ProblemNotice error={make.error} /> : null}
      <Bar wrap>
        <BigButton
          small
          symbol="duplicate"
          label={t('copyClasses')}
          busy={make.isPending}
          onPress={() => void copy().catch(() => undefined)}
        />
      </Bar>
    </Box>
  )
}

/** Turning the year, and taking it back where it was done. */
function useTurn(fromYearId: string, toYearId: string) {
  const turn = useTurnYear()
  const undo = useUndoTurn()
  const turnNow = (moves: { pupilId: string; toClassId: string | null }[]) =>
    turn.mutate(
      { fromYearId, toYearId, moves },
      {
        onSuccess: (done) =>
          toast(t('rolled'), {
            ...(done ? { undo: () => undo.mutate(done.id) } : {}),
            standsMs: UNDO_STANDS_MS,
          }),
      },
    )
  return { turn, turnNow, busy: turn.isPending || undo.isPending }
}

type Moving = RollOverPlan['classes'][number]['pupils'][number]

/** Where the pupils of a class go: all at once, or one by one. */
function ClassMoves({
  title,
  pupils,
  options,
  placeOf,
  onMove,
}: {
  title: string
  pupils: readonly Moving[]
  options: readonly { value: string; label: string }[]
  placeOf: (pupil: Moving) => string
  onMove: (places: Record<string, string>) => void
}) {
  const [open, setOpen] = useState(false)
  return (
    <Box title={title}>
      <Select
        label={t('allTo')}
        value={
          pupils.length > 0 && pupils.every((pupil) => placeOf(pupil) === placeOf(pupils[0]!))
            ? placeOf(pupils[0]!)
            : ''
        }
        options={[{ value: '', label: '…' }, ...options]}
        onChange={(place) =>
          place && onMove(Object.fromEntries(pupils.map((pupil) => [pupil.id, place])))
        }
      />
      <BigButton
        small
        tone="quiet"
        symbol={open ? 'up' : 'down'}
        label={t('onePupil', { count: pupils.length })}
        onPress={() => setOpen(!open)}
      />
      {(open ? pupils : []).map((pupil) => (
        <Bar
          key={pupil.id}
          style={{ borderTopWidth: 1, borderTopColor: colours.rule, paddingTop: space.near }}
        >
          <Peg peg={pupil.peg} size={34} />
          <Text variant="bodyMedium" style={{ flex: 1 }}>
            {`${pupil.firstName} ${pupil.lastName}`.trim()}
          </Text>
          <View style={{ maxWidth: 220 }}>
            <Select
              hidden
              label={`${pupil.firstName} ${pupil.lastName}`.trim()}
              value={placeOf(pupil)}
              options={options}
              onChange={(place) => onMove({ [pupil.id]: place })}
            />
          </View>
        </Bar>
      ))}
    </Box>
  )
}
