import type { RollOverPlan, SchoolYear } from '@nibquill/contract'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { schoolNow } from '../kit/clock'
import { schoolToday } from '../kit/dates'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Box, Hint, Row, Select } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { colours } from '../kit/theme'
import { toast } from '../kit/Toast'
import {
  schoolStrings as strings,
  useLatestRollOver,
  useRollOverPlan,
  useTurnYear,
  useUndoTurn,
  useYears,
} from '../school'

const LEAVES = 'leaves'

/** The year's turn: each pupil's next class, looked at before it is done in one step. */
export function RollOverScreen() {
  const years = useYears()
  if (!isHere(years)) return <NotYet of={years} />
  // The turn that lies ahead, or has just passed: last year's is history.
  const recent = schoolToday(new Date(schoolNow().getTime() - 60 * 86_400_000))
  const inOrder = [...years.data.years].reverse().filter(({ classCount }) => classCount > 0)
  const ahead = (inOrder.at(-1)?.startsOn ?? '') > recent
  return (
    <Page>
      <Head title={strings.rollOver} back="/year" />
      <Hint>{strings.rollHelp}</Hint>
      <LatestTurn />
      {inOrder.length < 2 || !ahead ? (
        <Notice tone="attention" symbol="year">
          {strings.rollNeedsYear}
        </Notice>
      ) : (
        <ChooseYears years={inOrder} />
      )}
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
      <Text variant="bodyMedium">{strings.rollDone(fromYearName, toYearName, moved, left)}</Text>
      {undoable ? (
        <Row>
          <BigButton
            small
            tone="again"
            symbol="undo"
            label={strings.undo}
            busy={undo.isPending}
            onPress={() => undo.mutate(id, { onSuccess: () => toast(strings.undone) })}
          />
        </Row>
      ) : (
        <Hint>{strings.final}</Hint>
      )}
      {undo.isError ? <ProblemNotice error={undo.error} /> : null}
    </Box>
  )
}

function ChooseYears({ years }: { years: SchoolYear[] }) {
  const [fromId, setFromId] = useState(years.at(-2)!.id)
  const [toId, setToId] = useState(years.at(-1)!.id)
  const plan = useRollOverPlan(fromId, toId)
  const options = years.map(({ id, name }) => ({ value: id, label: name }))
  return (
    <>
      <Row>
        <Select label={strings.rollFrom} value={fromId} options={options} onChange={setFromId} />
        <Select label={strings.rollTo} value={toId} options={options} onChange={setToId} />
      </Row>
      {plan.isPending ? <Loading /> : null}
      {plan.isError ? (
        <ProblemNotice error={plan.error} onRetry={() => void plan.refetch()} />
      ) : null}
      {plan.data ? (
        <PlanBox key={`${fromId}${toId}`} plan={plan.data} fromYearId={fromId} toYearId={toId} />
      ) : null}
    </>
  )
}

function PlanBox({
  plan,
  fromYearId,
  toYearId,
}: {
  plan: RollOverPlan
  fromYearId: string
  toYearId: string
}) {
  const turn = useTurnYear()
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
    { value: LEAVES, label: strings.leaves },
  ]
  const moves = everyone.map((pupil) => ({
    pupilId: pupil.id,
    toClassId: placeOf(pupil) === LEAVES ? null : placeOf(pupil),
  }))
  const left = moves.filter(({ toClassId }) => toClassId === null).length
  return (
    <>
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
      <Hint tone={plan.piecesWaiting > 0 ? 'attention' : 'soft'}>
        {strings.rollCounts(plan.foldersToPutAway, plan.piecesWaiting)}
      </Hint>
      {turn.isError ? <ProblemNotice error={turn.error} /> : null}
      <BigButton
        label={strings.rollDo}
        symbol="forward"
        busy={turn.isPending}
        onPress={() => setAsking(true)}
      />
      <Ask
        visible={asking}
        title={strings.rollAsk(moves.length - left, left)}
        yes={strings.rollDo}
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          turn.mutate({ fromYearId, toYearId, moves })
        }}
      >
        {strings.rollCounts(plan.foldersToPutAway, plan.piecesWaiting)}
      </Ask>
    </>
  )
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
  return (
    <Box title={title}>
      <Select
        label={strings.allTo}
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
      {pupils.map((pupil) => (
        <View
          key={pupil.id}
          style={{
            flexDirection: 'row',
            alignItems: 'center',
            gap: 10,
            borderTopWidth: 1,
            borderTopColor: colours.rule,
            paddingTop: 8,
          }}
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
        </View>
      ))}
    </Box>
  )
}
