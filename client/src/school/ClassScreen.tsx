import type { PupilLine, SchoolClass } from '@nibquill/contract'
import { IDLE_MINUTES } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { whenWasIt } from '../kit/dates'
import { Heading, Page, useWidth } from '../kit/layout'
import { Empty, Loading, ProblemNotice } from '../kit/Notice'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { colours, corners, shadow, stateColours, targets } from '../kit/theme'
import { useChangeClass, useClass, useClasses } from './schoolQueries'
import { strings } from './strings'

/** A class: each pupil with where their work stands. A table on wide screens, a list on phones. */
export function ClassScreen() {
  const classes = useClasses()
  const [chosen, setChosen] = useState<string | null>(null)
  const current = classes.data?.find(({ id }) => id === chosen) ?? classes.data?.[0]
  if (classes.isPending) return <Loading />
  if (classes.isError) return <ProblemNotice error={classes.error} onRetry={() => void classes.refetch()} />
  if (!current) {
    return (
      <Page>
        <Empty symbol="class" title={strings.noClass}>
          {strings.noClassHelp}
        </Empty>
      </Page>
    )
  }
  return (
    <Page max={980}>
      {classes.data.length > 1 ? (
        <View role="tablist" style={{ flexDirection: 'row', gap: 8 }}>
          {classes.data.map((one) => (
            <Choice key={one.id} role="tab" label={one.name} chosen={one.id === current.id} onPress={() => setChosen(one.id)} />
          ))}
        </View>
      ) : null}
      <Heading level={1}>{`${current.name}, ${current.yearGroup}`}</Heading>
      <ClassPupils current={current} />
    </Page>
  )
}

function Choice({
  label,
  chosen,
  onPress,
  role,
}: {
  label: string
  chosen: boolean
  onPress: () => void
  role: 'tab' | 'radio'
}) {
  return (
    <Press
      role={role}
      selected={chosen}
      label={label}
      onPress={onPress}
      style={{
        minHeight: targets.adult,
        minWidth: targets.adult,
        paddingHorizontal: 12,
        borderRadius: corners.button,
        justifyContent: 'center',
        alignItems: 'center',
        backgroundColor: chosen ? colours.aubergineTint : colours.sheet,
        borderWidth: 1,
        borderColor: chosen ? colours.aubergine : colours.rule,
      }}
    >
      <Text variant={chosen ? 'labelMedium' : 'bodyMedium'}>{label}</Text>
    </Press>
  )
}

function ClassPupils({ current }: { current: SchoolClass }) {
  const { tablet } = useWidth()
  const detail = useClass(current.id)
  const change = useChangeClass(current.id)
  if (detail.isPending) return <Loading />
  if (detail.isError) return <ProblemNotice error={detail.error} onRetry={() => void detail.refetch()} />
  return (
    <>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 10 }}>
        <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {strings.idle}
        </Text>
        <View role="radiogroup" aria-label={strings.idle} style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}>
          {IDLE_MINUTES.map((minutes) => (
            <Choice
              key={minutes}
              role="radio"
              label={strings.minutes(minutes)}
              chosen={detail.data.idleMinutes === minutes}
              onPress={() => change.mutate({ idleMinutes: minutes, seenVersion: detail.data.version })}
            />
          ))}
        </View>
      </View>
      {change.isError ? <ProblemNotice error={change.error} /> : null}
      <View
        role={tablet ? 'table' : 'list'}
        aria-label={strings.pupils(detail.data.pupils.length)}
        style={[{ backgroundColor: colours.sheet, borderRadius: corners.button, overflow: 'hidden' }, shadow]}
      >
        {tablet ? <TableHead /> : null}
        {detail.data.pupils.map((pupil) => (
          <PupilRow key={pupil.id} pupil={pupil} table={tablet} />
        ))}
      </View>
    </>
  )
}

const COUNTS = ['draft', 'submitted', 'returned', 'approved'] as const

function TableHead() {
  const head = (text: string, flex: number, key: string) => (
    <View key={key} role="columnheader" style={{ flex }}>
      <Text variant="bodySmall" style={{ color: colours.inkSoft, textAlign: flex === 3 ? 'left' : 'center' }}>
        {text}
      </Text>
    </View>
  )
  return (
    <View role="row" style={{ flexDirection: 'row', padding: 12, borderBottomWidth: 1, borderBottomColor: colours.rule, gap: 8 }}>
      {head(strings.columns.name, 3, 'name')}
      {COUNTS.map((count) => head(strings.columns[count], 1.2, count))}
      {head(strings.columns.seen, 1.6, 'seen')}
    </View>
  )
}

function PupilRow({ pupil, table }: { pupil: PupilLine; table: boolean }) {
  const name = `${pupil.firstName} ${pupil.lastName}`
  const seen = pupil.lastSeenAt ? whenWasIt(pupil.lastSeenAt) : strings.never
  const who = (
    <Press
      role="link"
      label={name}
      onPress={() => router.push(`/class/${pupil.id}`)}
      style={{ flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: targets.adult, flex: 1 }}
    >
      <Peg peg={pupil.peg} size={40} />
      <Text variant="titleSmall" style={{ flex: 1 }}>
        {name}
      </Text>
    </Press>
  )
  if (!table) {
    return (
      <View role="listitem" style={{ padding: 12, borderBottomWidth: 1, borderBottomColor: colours.rule, gap: 4 }}>
        {who}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12, paddingLeft: 52 }}>
          {COUNTS.filter((count) => pupil.counts[count] > 0).map((count) => (
            <Text
              key={count}
              variant="bodySmall"
              style={{ color: stateColours[count].text }}
            >{`${pupil.counts[count]} ${strings.columns[count].toLowerCase()}`}</Text>
          ))}
        </View>
      </View>
    )
  }
  return (
    <View
      role="row"
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        paddingHorizontal: 12,
        paddingVertical: 5,
        borderBottomWidth: 1,
        borderBottomColor: colours.rule,
        gap: 8,
      }}
    >
      <View role="cell" style={{ flex: 3 }}>
        {who}
      </View>
      {COUNTS.map((count) => (
        <View key={count} role="cell" style={{ flex: 1.2, alignItems: 'center' }}>
          <View
            style={{
              minWidth: 34,
              borderRadius: 17,
              paddingVertical: 3,
              alignItems: 'center',
              backgroundColor: pupil.counts[count] ? stateColours[count].tint : 'transparent',
            }}
          >
            <Text variant="bodyMedium" style={{ color: pupil.counts[count] ? stateColours[count].text : colours.inkSoft }}>
              {pupil.counts[count] || '–'}
            </Text>
          </View>
        </View>
      ))}
      <View role="cell" style={{ flex: 1.6 }}>
        <Text variant="bodySmall" style={{ color: colours.inkSoft, textAlign: 'center' }}>
          {seen}
        </Text>
      </View>
    </View>
  )
}
