import type { ClassList } from '@nibquill/contract'
import { MAX_NAME_LENGTH } from '@nibquill/core'
import { router, useLocalSearchParams, type Href } from 'expo-router'
import { useState, type ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { pickFiles } from '../device/pickFiles'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Box, Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Bar, Page, Stack } from '../kit/layout'
import { Notice, ProblemNotice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { Progress } from '../kit/Progress'
import { colours, corners, space, targets } from '../kit/theme'
import { useClass, useClassList, useConfirmClassList, useShowClassList } from '../school'
import { TakenListsBox } from './TakenListsBox'
import { t } from './words'

/**
 * Pupils into a class, or into all classes: typed, pasted or from a file; looked at before anything
 * happens.
 */
export function ClassListScreen() {
  const { classId } = useLocalSearchParams<{ classId?: string }>()
  const home = useClass(classId ?? '')
  const [names, setNames] = useState('')
  const [shownId, setShownId] = useState<string | null>(null)
  const show = useShowClassList(classId ?? null)
  const list = useClassList(shownId)
  const look = (content: string | File, kind?: string) =>
    show.mutate(
      { content, ...(kind === undefined ? {} : { kind }) },
      {
        onSuccess: ({ id }) => setShownId(id),
      },
    )
  const pick = async () => {
    const [file] = await pickFiles('.csv,.zip,.txt,.tsv,text/csv,text/plain,application/zip')
    if (file) look(file)
  }
  const back: Href = classId ? `/class?classId=${classId}` : '/year'
  const head = (
    <Head
      title={classId ? t('listTitle', { name: home.data?.name ?? '' }) : t('wholeListTitle')}
      back={back}
    />
  )

  if (shownId && list.data) {
    const again = () => {
      setShownId(null)
      show.reset()
    }
    return (
      <Shown
        {...{ list: list.data, classId, back, head }}
        onAgain={again}
        // The same list, read with the answer.
        onKind={(kind) => show.variables && look(show.variables.content, kind)}
        isReading={show.isPending}
      />
    )
  }
  return (
    <Page
      foot={
        <Bar wrap>
          <BigButton
            grow
            label={t('look')}
            symbol="eye"
            disabled={names.trim() === ''}
            busy={show.isPending}
            onPress={() => look(names)}
          />
          <BigButton
            grow
            tone="quiet"
            label={t('pickFile')}
            symbol="file"
            onPress={() => void pick()}
          />
        </Bar>
      }
    >
      {head}
      <Text variant="bodyMedium">{t('listHelp')}</Text>
      {classId ? null : <Hint>{t('listWholeHelp')}</Hint>}
      {show.isError ? <ProblemNotice error={show.error} /> : null}
      {list.isError ? (
        <ProblemNotice error={list.error} onRetry={() => void list.refetch()} />
      ) : null}
      <Field
        label={t('names')}
        value={names}
        onChangeText={setNames}
        lines={10}
        spellCheck={false}
      />
      <TakenListsBox />
    </Page>
  )
}

type ShownProps = {
  list: ClassList
  classId: string | undefined
  back: Href
  head: ReactNode
  onAgain: () => void
  onKind: (kind: string) => void
  isReading: boolean
}

/** What a list would do, what it does, and what it has done. */
function Shown({ list, classId, back, head, onAgain, onKind, isReading }: ShownProps) {
  const confirm = useConfirmClassList()
  const [asking, setAsking] = useState(false)
  const toTake = list.counts.add + list.counts.change
  const twins = list.steps.filter(({ twin }) => twin)
  const takeOver = (leaveOut: number[]) => {
    setAsking(false)
    confirm.mutate({ id: list.id, leaveOut })
  }
  const leave = (
    <BigButton
      label={classId ? t('toClass') : t('toYear')}
      symbol="forward"
      onPress={() => router.replace(back)}
    />
  )
  const take = (
    <BigButton
      label={t('confirm')}
      symbol="check"
      busy={confirm.isPending}
      disabled={list.overfull.length > 0}
      onPress={() => (twins.length > 0 ? setAsking(true) : takeOver([]))}
    />
  )
  const isOpen = list.kinds.length > 0 && list.kind === null
  const isOver = list.state === 'done' || list.state === 'failed' || toTake === 0
  return (
    <Page foot={isOpen ? null : isOver ? leave : list.state === 'shown' ? take : null} max={900}>
      {head}
      {list.kinds.length > 0 && list.state === 'shown' ? (
        <WhichKind list={list} onKind={onKind} isReading={isReading} />
      ) : null}
      {isOpen ? null : <Preview list={list} toTake={toTake} />}
      <Ask
        visible={asking}
        title={t('twinsAsk', { count: twins.length })}
        yes={t('twinsTwo')}
        no={t('twinsOne')}
        onYes={() => takeOver([])}
        onNo={() => takeOver(twins.map(({ line }) => line))}
        onLeave={() => setAsking(false)}
      >
        {twins
          .map(({ firstName, lastName, className }) =>
            [`${firstName} ${lastName}`.trim(), className].filter(Boolean).join(', '),
          )
          .join(' · ')}
      </Ask>
      {confirm.isError ? <ProblemNotice error={confirm.error} /> : null}
      {list.state === 'done' || list.state === 'failed' ? <TakenListsBox /> : null}
      <Bar wrap>
        <BigButton small tone="quiet" symbol="again" label={t('another')} onPress={onAgain} />
      </Bar>
    </Page>
  )
}

/** So many kinds are shown, those most pupils are in first. */
const MOST_KINDS = 12

/** Which kind of class of a register is a class here, where the register does not say. */
function WhichKind({
  list,
  onKind,
  isReading,
}: {
  list: ClassList
  onKind: (kind: string) => void
  isReading: boolean
}) {
  return (
    <Box title={t('whichKind')}>
      <Hint>{t('whichKindHelp')}</Hint>
      <Stack role="radiogroup" aria-label={t('whichKind')} gap="near">
        {list.kinds.slice(0, MOST_KINDS).map(({ id, name, classes, pupils }) => {
          const selected = id === list.kind
          return (
            <Press
              key={id}
              role="radio"
              selected={selected}
              label={`${name}, ${t('kindOf', { pupils })}`}
              disabled={isReading}
              onPress={() => onKind(id)}
              style={{
                minHeight: targets.adult,
                padding: space.apart,
                borderRadius: corners.button,
                borderWidth: 1,
                borderColor: selected ? colours.aubergine : colours.rule,
                backgroundColor: selected ? colours.aubergineTint : colours.sheet,
              }}
            >
              <Text variant="titleSmall">{name}</Text>
              <Hint>{`${t('kindOf', { pupils })}: ${classes.join(', ')}`}</Hint>
            </Press>
          )
        })}
      </Stack>
    </Box>
  )
}

/** True for whatever the rows are: all of them new, all of them known, none of them usable. */
function headlineOf({ counts }: ClassList, toTake: number): string {
  if (toTake > 0) return t('nothingYet')
  if (counts.nothing > 0) return counts.faults > 0 ? t('restIsHere') : t('nothingToDo')
  return t('noneUsable')
}

const MOST = 200
function Preview({ list, toTake }: { list: ClassList; toTake: number }) {
  const { counts } = list
  const running = list.state === 'running'
  return (
    <>
      {running ? (
        <Box title={t('taking', { done: list.rowsDone, of: toTake })}>
          <Progress
            share={toTake ? list.rowsDone / toTake : 0}
            label={t('taking', { done: list.rowsDone, of: toTake })}
          />
        </Box>
      ) : null}
      {list.state === 'done' ? (
        <Notice tone="good" symbol="check">
          {t('taken')}
        </Notice>
      ) : null}
      {list.state === 'failed' ? (
        <Notice tone="again" symbol="alert">
          {t('stopped', { done: list.rowsDone, of: toTake })}
        </Notice>
      ) : null}
      {list.overfull.map(({ name, count }) => (
        <Notice key={name} tone="again" symbol="alert">
          {t('overfull', { name, count, most: list.mostInClass })}
        </Notice>
      ))}
      <Box title={t('preview')}>
        {list.state === 'shown' ? <Hint>{headlineOf(list, toTake)}</Hint> : null}
        {(['add', 'change', 'nothing', 'faults'] as const)
          .filter((kind) => counts[kind] > 0)
          .map((kind) => (
            <Text
              key={kind}
              variant="titleSmall"
              style={{ color: kind === 'faults' ? colours.clay : colours.ink }}
            >
              {t(`does.${kind}`, { n: counts[kind] })}
            </Text>
          ))}
        {list.newClasses.length > 0 ? (
          <Hint>{t('does.newClasses', { names: list.newClasses.join(', ') })}</Hint>
        ) : null}
        {list.encoding === 'utf-8' ? null : (
          <Hint>{t('readAs', { encoding: list.encoding.toUpperCase() })}</Hint>
        )}
      </Box>
      {list.faults.length > 0 ? (
        <Box title={t('does.faults', { n: counts.faults })} level={3}>
          {list.faults.slice(0, MOST).map((fault, i) => (
            <View key={i}>
              <Text variant="bodyMedium">{`${t('line', { line: fault.line })}: ${t(`badRow.${fault.reason}`, { about: fault.about, limit: MAX_NAME_LENGTH })}`}</Text>
              <Hint>{fault.cells.join(' · ')}</Hint>
            </View>
          ))}
        </Box>
      ) : null}
      <View role="list">
        {list.steps.slice(0, MOST).map((step, i) => (
          <StepLine key={i} step={step} />
        ))}
      </View>
      {counts.add + counts.change + counts.nothing > MOST ? (
        <Hint>{t('shownOnly', { n: MOST })}</Hint>
      ) : null}
    </>
  )
}

const STEP_COLOURS = {
  add: colours.verdigris,
  change: colours.ochreText,
  nothing: colours.inkSoft,
} as const

/** One pupil of the list, and what happens to them. */
function StepLine({ step }: { step: ClassList['steps'][number] }) {
  return (
    <Bar
      role="listitem"
      wrap
      align="stretch"
      style={{
        paddingVertical: space.near,
        borderBottomWidth: 1,
        borderBottomColor: colours.rule,
      }}
    >
      <Text variant="bodyMedium" style={{ flexGrow: 1 }}>
        {`${step.firstName} ${step.lastName}`.trim()}
      </Text>
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {step.className}
      </Text>
      <Text variant="labelMedium" style={{ color: STEP_COLOURS[step.does] }}>
        {[
          t(`stepDoes.${step.does}`),
          ...step.changes.map((change) => t(`stepChanges.${change}`)),
        ].join(', ')}
      </Text>
    </Bar>
  )
}
