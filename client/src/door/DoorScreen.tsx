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
import { useWhen } from '../kit/useWhen'
import { Box, DayField, Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Bar, Page, Sides } from '../kit/layout'
import { Loading, Notice, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { RoundButton } from '../kit/RoundButton'
import { colours, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { useClass } from '../school'
import { useChangeDoor, useDoor, useEnd } from '../accounts'
import { doorSentence } from './DoorLine'
import { t } from './words'

/** A class's door: when it is open, which tablets show the pegs, whose desks are open. */
export function DoorScreen() {
  const { classId = '' } = useLocalSearchParams<{ classId?: string }>()
  const door = useDoor(classId)
  const detail = useClass(classId)
  if (!isHere(door)) return <NotYet of={door} />
  if (detail.isPending) return <Loading />
  return (
    <Page sides>
      <Head
        title={t('doorOf', { className: detail.data?.name ?? '' })}
        back={`/class?classId=${classId}`}
      />
      <Hint>{t('doorHelp')}</Hint>
      <Sides
        left={
          <>
            <When classId={classId} door={door.data} />
            <Secrets classId={classId} door={door.data} />
          </>
        }
        right={
          <>
            <Tablets classId={classId} door={door.data} />
            <Desks classId={classId} sessions={door.data.sessions} />
          </>
        }
      />
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
        label={t('doorSwitch')}
        options={DOOR_SWITCHES.map((value) => ({ value, label: t(`doorSwitches.${value}`) }))}
        value={door.switch}
        onChange={(position) => change.mutate({ switch: position })}
      />
      <Bar wrap>
        <DayField
          type="time"
          label={t('opensAt')}
          value={times.opensAt}
          onChange={(opensAt) => setTimes({ ...times, opensAt })}
        />
        <DayField
          type="time"
          label={t('closesAt')}
          value={times.closesAt}
          onChange={(closesAt) => setTimes({ ...times, closesAt })}
        />
      </Bar>
      <Toggle
        label={t('onlyHere')}
        value={door.onlyHere}
        onChange={(onlyHere) => change.mutate({ onlyHere })}
      />
      <Hint tone={door.onlyHere ? 'soft' : 'attention'}>
        {t(`fromHome.${door.onlyHere ? 'shut' : 'open'}`)}
      </Hint>
      {changed ? (
        <Bar wrap>
          <BigButton
            small
            symbol="check"
            label={t('keep')}
            busy={change.isPending}
            onPress={() => change.mutate(times)}
          />
        </Bar>
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
    onSuccess: () => toast(t('doorCardPrinted')),
    onError: (error) => toast(sentenceOf(error)),
  })
  return (
    <Box title={t('tablets')}>
      {door.cardMadeAt === null ? (
        <Notice tone="attention" symbol="card">
          {t('noDoorCard')}
        </Notice>
      ) : null}
      {door.tablets.length === 0 ? <Hint>{t('noTablets')}</Hint> : null}
      {door.tablets.map((tablet) => (
        <TabletRow
          key={tablet.id}
          tablet={tablet}
          onEnd={() => end.mutate(`tablets/${tablet.id}`)}
        />
      ))}
      <Bar wrap>
        <BigButton
          small
          tone="quiet"
          symbol="card"
          label={t('doorCard')}
          busy={print.isPending}
          onPress={() => (door.cardMadeAt === null ? print.mutate() : setAsking(true))}
        />
        <Limit
          value={door.tabletLimit}
          onChange={(tabletLimit) => change.mutate({ tabletLimit })}
        />
      </Bar>
      {end.isError ? <ProblemNotice error={end.error} /> : null}
      <Ask
        visible={asking}
        title={t('doorCardAsk')}
        yes={t('doorCardDo')}
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          print.mutate()
        }}
      >
        {t('doorCardHelp')}
      </Ask>
    </Box>
  )
}

function TabletRow({ tablet, onEnd }: { tablet: SharedTablet; onEnd: () => void }) {
  const { whenWasIt } = useWhen()
  return (
    <Bar gap="apart" style={{ minHeight: targets.adult }}>
      <Text variant="titleSmall">{t('tablet', { number: tablet.number })}</Text>
      <Text variant="bodyMedium" style={{ flex: 1, color: colours.inkSoft }}>
        {t('lastSeen', { when: whenWasIt(tablet.seenAt) })}
      </Text>
      <RoundButton
        size={targets.adult}
        label={t('takeAway', { number: tablet.number })}
        symbol="close"
        onPress={onEnd}
      />
    </Bar>
  )
}

function Limit({ value, onChange }: { value: number; onChange: (value: number) => void }) {
  return (
    <Bar role="group" aria-label={t('tabletLimit')} gap="tight">
      <Text variant="bodyMedium">{t('tabletLimit')}</Text>
      <RoundButton
        size={targets.adult}
        label={t('fewer')}
        symbol="minus"
        disabled={value <= 1}
        onPress={() => onChange(value - 1)}
      />
      <Text variant="titleMedium" style={{ minWidth: 28, textAlign: 'center' }}>
        {value}
      </Text>
      <RoundButton
        size={targets.adult}
        label={t('more')}
        symbol="plus"
        disabled={value >= MAX_TABLETS}
        onPress={() => onChange(value + 1)}
      />
    </Bar>
  )
}

function Secrets({ classId, door }: Part) {
  const change = useChangeDoor(classId)
  return (
    <Box title={t('secretsTitle')}>
      <Toggle
        label={t('asksSecret')}
        value={door.asksSecret}
        onChange={(asksSecret) => change.mutate({ asksSecret })}
      />
      {door.asksSecret ? (
        <Bar wrap>
          <BigButton
            small
            tone="quiet"
            symbol="eye"
            label={t('secrets')}
            onPress={() => router.push(`/class/secrets?classId=${classId}`)}
          />
        </Bar>
      ) : null}
    </Box>
  )
}

function Desks({ classId, sessions }: { classId: string; sessions: OpenSession[] }) {
  const { whenWasIt } = useWhen()
  const end = useEnd(classId)
  const [asking, setAsking] = useState(false)
  return (
    <Box title={t('openDesks')}>
      {sessions.length === 0 ? <Hint>{t('noDesks')}</Hint> : null}
      {sessions.map((session) => (
        <Bar key={session.id} gap="apart" style={{ minHeight: targets.adult }}>
          <Peg peg={session.pupil.peg} size={40} />
          <View style={{ flex: 1 }}>
            <Text variant="titleSmall">
              {`${session.pupil.firstName} ${session.pupil.lastName}`.trim()}
            </Text>
            <Hint>
              {t('deskOpen', {
                way: wayWords(session),
                when: whenWasIt(session.openedAt),
              })}
            </Hint>
          </View>
          <RoundButton
            size={targets.adult}
            label={t('endDesk', { name: session.pupil.firstName })}
            symbol="close"
            onPress={() => end.mutate(`sessions/${session.id}`)}
          />
        </Bar>
      ))}
      {sessions.length > 1 ? (
        <Bar wrap>
          <BigButton
            small
            tone="again"
            label={t('endAll')}
            busy={end.isPending}
            onPress={() => setAsking(true)}
          />
        </Bar>
      ) : null}
      {end.isError ? <ProblemNotice error={end.error} /> : null}
      <Ask
        visible={asking}
        title={t('endAllAsk')}
        yes={t('endAll')}
        tone="again"
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          end.mutate('sessions')
        }}
      >
        {t('endAllHelp')}
      </Ask>
    </Box>
  )
}

function wayWords({ way, tabletNumber }: { way: string; tabletNumber: number | null }): string {
  if (way !== 'peg') return t('byCard')
  return tabletNumber === null ? t('byPeg') : t('byTablet', { number: tabletNumber })
}
