import {
  MAX_TABLETS,
  type ClassDoor,
  type OpenSession,
  type SharedTablet,
} from '@nibquill/contract'
import { DOOR_SWITCHES } from '@nibquill/core'
import { useMutation } from '@tanstack/react-query'
import { router, useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { sentenceOf } from '../kit/problems'
import { saveFile } from '../media/saveFile'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Choices, Toggle } from '../kit/choices'
import { whenWasIt } from '../kit/dates'
import { Box, DayField, Hint, Row } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { RoundButton } from '../kit/RoundButton'
import { colours, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { useClass } from '../school'
import { accountsStrings as strings, useChangeDoor, useDoor, useEnd } from '../accounts'
import { doorSentence } from './DoorLine'

/** A class's door: when it is open, which tablets show the pegs, whose desks are open. */
export function DoorScreen() {
  const { classId = '' } = useLocalSearchParams<{ classId?: string }>()
  const door = useDoor(classId)
  const detail = useClass(classId)
  if (!isHere(door)) return <NotYet of={door} />
  if (detail.isPending) return <Loading />
  return (
    <Page max={900}>
      <Head title={strings.doorOf(detail.data?.name ?? '')} back={`/class?classId=${classId}`} />
      <Hint>{strings.doorHelp}</Hint>
      <When classId={classId} door={door.data} />
      <Tablets classId={classId} door={door.data} />
      <Secrets classId={classId} door={door.data} />
      <Desks classId={classId} sessions={door.data.sessions} />
    </Page>
  )
}

type Part = { classId: string; door: ClassDoor }

function When({ classId, door }: Part) {
  const change = useChangeDoor(classId)
  const [times, setTimes] = useState({ opensAt: door.opensAt, closesAt: door.closesAt })
  const changed = times.opensAt !== door.opensAt || times.closesAt !== door.closesAt
  return (
    <Box title={doorSentence(door)}>
      <Choices
        label={strings.doorSwitch}
        options={DOOR_SWITCHES.map((value) => ({ value, label: strings.doorSwitches[value] }))}
        value={door.switch}
        onChange={(position) => change.mutate({ switch: position })}
      />
      <Row>
        <DayField
          type="time"
          label={strings.opensAt}
          value={times.opensAt}
          onChange={(opensAt) => setTimes({ ...times, opensAt })}
        />
        <DayField
          type="time"
          label={strings.closesAt}
          value={times.closesAt}
          onChange={(closesAt) => setTimes({ ...times, closesAt })}
        />
      </Row>
      <Toggle
        label={strings.onlyHere}
        value={door.onlyHere}
        onChange={(onlyHere) => change.mutate({ onlyHere })}
      />
      <Hint tone={door.onlyHere ? 'soft' : 'attention'}>
        {strings.fromHome[door.onlyHere ? 'shut' : 'open']}
      </Hint>
      {changed ? (
        <Row>
          <BigButton
            small
            symbol="check"
            label={strings.keep}
            busy={change.isPending}
            onPress={() => change.mutate(times)}
          />
        </Row>
      ) : null}
      {change.isError ? <ProblemNotice error={change.error} /> : null}
    </Box>
  )
}

function Tablets({ classId, door }: Part) {
  const change = useChangeDoor(classId)
  const end = useEnd(classId)
  const [asking, setAsking] = useState(false)
  const print = useMutation({
    mutationFn: () => saveFile(`/api/accounts/classes/${classId}/door/card`, 'door-card.pdf', {}),
    onSuccess: () => toast(strings.doorCardPrinted),
    onError: (error) => toast(sentenceOf(error)),
  })
  return (
    <Box title={strings.tablets}>
      {door.cardMadeAt === null ? (
        <Notice tone="attention" symbol="card">
          {strings.noDoorCard}
        </Notice>
      ) : null}
      {door.tablets.length === 0 ? <Hint>{strings.noTablets}</Hint> : null}
      {door.tablets.map((tablet) => (
        <TabletRow
          key={tablet.id}
          tablet={tablet}
          onEnd={() => end.mutate(`tablets/${tablet.id}`)}
        />
      ))}
      <Row>
        <BigButton
          small
          tone="quiet"
          symbol="card"
          label={strings.doorCard}
          busy={print.isPending}
          onPress={() => (door.cardMadeAt === null ? print.mutate() : setAsking(true))}
        />
        <Limit
          value={door.tabletLimit}
          onChange={(tabletLimit) => change.mutate({ tabletLimit })}
        />
      </Row>
      {end.isError ? <ProblemNotice error={end.error} /> : null}
      <Ask
        visible={asking}
        title={strings.doorCardAsk}
        yes={strings.doorCardDo}
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          print.mutate()
        }}
      >
        {strings.doorCardHelp}
      </Ask>
    </Box>
  )
}

function TabletRow({ tablet, onEnd }: { tablet: SharedTablet; onEnd: () => void }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: targets.adult }}>
      <Text variant="titleSmall">{strings.tablet(tablet.number)}</Text>
      <Text variant="bodyMedium" style={{ flex: 1, color: colours.inkSoft }}>
        {strings.lastSeen(whenWasIt(tablet.seenAt))}
      </Text>
      <RoundButton
        size={targets.adult}
        label={strings.takeAway(tablet.number)}
        symbol="close"
        onPress={onEnd}
      />
    </View>
  )
}

function Limit({ value, onChange }: { value: number; onChange: (value: number) => void }) {
  return (
    <View
      role="group"
      aria-label={strings.tabletLimit}
      style={{ flexDirection: 'row', alignItems: 'center', gap: 4 }}
    >
      <Text variant="bodyMedium">{strings.tabletLimit}</Text>
      <RoundButton
        size={targets.adult}
        label={strings.fewer}
        symbol="minus"
        disabled={value <= 1}
        onPress={() => onChange(value - 1)}
      />
      <Text variant="titleMedium" style={{ minWidth: 28, textAlign: 'center' }}>
        {value}
      </Text>
      <RoundButton
        size={targets.adult}
        label={strings.more}
        symbol="plus"
        disabled={value >= MAX_TABLETS}
        onPress={() => onChange(value + 1)}
      />
    </View>
  )
}

function Secrets({ classId, door }: Part) {
  const change = useChangeDoor(classId)
  return (
    <Box title={strings.secretsTitle}>
      <Toggle
        label={strings.asksSecret}
        value={door.asksSecret}
        onChange={(asksSecret) => change.mutate({ asksSecret })}
      />
      {door.asksSecret ? (
        <Row>
          <BigButton
            small
            tone="quiet"
            symbol="eye"
            label={strings.secrets}
            onPress={() => router.push(`/class/secrets?classId=${classId}`)}
          />
        </Row>
      ) : null}
    </Box>
  )
}

function Desks({ classId, sessions }: { classId: string; sessions: OpenSession[] }) {
  const end = useEnd(classId)
  const [asking, setAsking] = useState(false)
  return (
    <Box title={strings.openDesks}>
      {sessions.length === 0 ? <Hint>{strings.noDesks}</Hint> : null}
      {sessions.map((session) => (
        <View
          key={session.id}
          style={{ flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: targets.adult }}
        >
          <Peg peg={session.pupil.peg} size={40} />
          <View style={{ flex: 1 }}>
            <Text variant="titleSmall">
              {`${session.pupil.firstName} ${session.pupil.lastName}`.trim()}
            </Text>
            <Hint>
              {strings.deskOpen(
                session.way === 'peg' ? strings.byPeg(session.tabletNumber) : strings.byCard,
                whenWasIt(session.openedAt),
              )}
            </Hint>
          </View>
          <RoundButton
            size={targets.adult}
            label={strings.endDesk(session.pupil.firstName)}
            symbol="close"
            onPress={() => end.mutate(`sessions/${session.id}`)}
          />
        </View>
      ))}
      {sessions.length > 1 ? (
        <Row>
          <BigButton
            small
            tone="again"
            label={strings.endAll}
            busy={end.isPending}
            onPress={() => setAsking(true)}
          />
        </Row>
      ) : null}
      {end.isError ? <ProblemNotice error={end.error} /> : null}
      <Ask
        visible={asking}
        title={strings.endAllAsk}
        yes={strings.endAll}
        tone="again"
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          end.mutate('sessions')
        }}
      >
        {strings.endAllHelp}
      </Ask>
    </Box>
  )
}
