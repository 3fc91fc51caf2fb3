import type { ClassList } from '@nibquill/contract'
import { router, useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { pickFiles } from '../device/pickFiles'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Box, Hint, Row } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Notice, ProblemNotice } from '../kit/Notice'
import { Progress } from '../kit/Progress'
import { colours } from '../kit/theme'
import {
  schoolStrings as strings,
  useClass,
  useClassList,
  useConfirmClassList,
  useShowClassList,
} from '../school'

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
  const confirm = useConfirmClassList()
  const look = (content: string | File) =>
    show.mutate(content, { onSuccess: ({ id }) => setShownId(id) })
  const pick = async () => {
    const [file] = await pickFiles('.csv,.zip,.txt,.tsv,text/csv,text/plain,application/zip')
    if (file) look(file)
  }
  const back = classId ? (`/class?classId=${classId}` as const) : '/year'
  const head = (
    <Head title={strings.listTitle(classId ? (home.data?.name ?? '') : null)} back={back} />
  )

  if (shownId && list.data) {
    const toTake = list.data.counts.add + list.data.counts.change
    const again = () => {
      setShownId(null)
      show.reset()
      confirm.reset()
    }
    const done = list.data.state === 'done'
    const foot =
      done || toTake === 0 ? (
        <BigButton
          label={classId ? strings.toClass : strings.keep}
          symbol="forward"
          onPress={() => router.replace(back as '/class')}
        />
      ) : list.data.state === 'shown' ? (
        <BigButton
          label={strings.confirm}
          symbol="check"
          busy={confirm.isPending}
          onPress={() => confirm.mutate(shownId)}
        />
      ) : null
    return (
      <Page foot={foot} max={900}>
        {head}
        <Preview list={list.data} toTake={toTake} />
        {confirm.isError ? <ProblemNotice error={confirm.error} /> : null}
        <Row>
          <BigButton small tone="quiet" symbol="again" label={strings.another} onPress={again} />
        </Row>
      </Page>
    )
  }
  return (
    <Page
      foot={
        <Row>
          <BigButton
            grow
            label={strings.look}
            symbol="eye"
            disabled={names.trim() === ''}
            busy={show.isPending}
            onPress={() => look(names)}
          />
          <BigButton
            grow
            tone="quiet"
            label={strings.pickFile}
            symbol="file"
            onPress={() => void pick()}
          />
        </Row>
      }
    >
      {head}
      <Text variant="bodyMedium">{strings.listHelp}</Text>
      {classId ? null : <Hint>{strings.listWholeHelp}</Hint>}
      {show.isError ? <ProblemNotice error={show.error} /> : null}
      {list.isError ? (
        <ProblemNotice error={list.error} onRetry={() => void list.refetch()} />
      ) : null}
      <Field
        label={strings.names}
        value={names}
        onChangeText={setNames}
        lines={10}
        spellCheck={false}
      />
    </Page>
  )
}

const MOST = 200
function Preview({ list, toTake }: { list: ClassList; toTake: number }) {
  const { counts } = list
  const running = list.state === 'running'
  return (
    <>
      {running ? (
        <Box title={strings.taking(list.rowsDone, toTake)}>
          <Progress
            share={toTake ? list.rowsDone / toTake : 0}
            label={strings.taking(list.rowsDone, toTake)}
          />
        </Box>
      ) : null}
      {list.state === 'done' ? (
        <Notice tone="good" symbol="check">
          {strings.taken}
        </Notice>
      ) : null}
      <Box title={strings.preview}>
        {list.state === 'shown' ? (
          <Hint>{toTake === 0 ? strings.nothingToDo : strings.nothingYet}</Hint>
        ) : null}
        {(['add', 'change', 'nothing', 'faults'] as const)
          .filter((kind) => counts[kind] > 0)
          .map((kind) => (
            <Text
              key={kind}
              variant="titleSmall"
              style={{ color: kind === 'faults' ? colours.clay : colours.ink }}
            >
              {strings.does[kind](counts[kind])}
            </Text>
          ))}
        {list.newClasses.length > 0 ? (
          <Hint>{strings.does.newClasses(list.newClasses.join(', '))}</Hint>
        ) : null}
      </Box>
      {list.faults.length > 0 ? (
        <Box title={strings.does.faults(counts.faults)} level={3}>
          {list.faults.slice(0, MOST).map((fault, i) => (
            <View key={i}>
              <Text variant="bodyMedium">{`${strings.line(fault.line)}: ${fault.reason}`}</Text>
              <Hint>{fault.cells.join(' · ')}</Hint>
            </View>
          ))}
        </Box>
      ) : null}
      <View role="list">
        {list.steps.slice(0, MOST).map((step, i) => (
          <View
            key={i}
            role="listitem"
            style={{
              flexDirection: 'row',
              flexWrap: 'wrap',
              gap: 10,
              paddingVertical: 8,
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
            <Text
              variant="labelMedium"
              style={{
                color: {
                  add: colours.verdigris,
                  change: colours.ochreText,
                  nothing: colours.inkSoft,
                }[step.does],
              }}
            >
              {[
                strings.stepDoes[step.does],
                ...step.changes.map((change) => strings.stepChanges[change]),
              ].join(', ')}
            </Text>
          </View>
        ))}
      </View>
      {counts.add + counts.change + counts.nothing > MOST ? (
        <Hint>{strings.shownOnly(MOST)}</Hint>
      ) : null}
    </>
  )
}
