import type { LyingOnCopies, Task } from '@nibquill/contract'
import type { InkDocument, PlacedThing } from '@nibquill/core/ink/document'
import {
  isAsExpected,
  NOTHING_EXPECTED,
  sortablesOf,
  spotsOf,
  tallyOf,
  wordsOn,
  type Expected,
  type Lying,
} from '@nibquill/core/ink/sorting'
import { useQuery } from '@tanstack/react-query'
import { router, useLocalSearchParams } from 'expo-router'
import { useMemo, type ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Box, Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Bar, Page, Stack, useWidth } from '../kit/layout'
import { Empty, Loading, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, space } from '../kit/theme'
import { inkQuery } from '../parts/inkQuery'
import { useLying, useTask } from '../tasks'
import { nameOfSpot, nameOfThing } from './names'
import { ThingPicture } from './ThingPicture'
import { t } from './words'

/** What lies where on the sheets of a task that were handed in: facts, for their teacher. */
export function LyingScreen() {
  const { id } = useLocalSearchParams<{ id: string }>()
  const task = useTask(id)
  if (!isHere(task)) return <NotYet of={task} />
  return (
    <Page max={900}>
      <Head title={t('lyingFor', { title: task.data.title })} back={`/tasks/${id}`} />
      <Found task={task.data} />
    </Page>
  )
}

function Found({ task }: { task: Task }) {
  const copies = useLying(task.id)
  const sheet = useQuery(inkQuery(task.sheet?.mediaId ?? ''))
  if (!isHere(copies)) return <NotYet of={copies} />
  if (task.sheet && sheet.isError)
    return <ProblemNotice error={sheet.error} onRetry={() => void sheet.refetch()} />
  if (task.sheet && !sheet.data) return <Loading />
  if (!sheet.data || !task.sheet?.sorting) return <Text variant="bodyMedium">{t('lyingNone')}</Text>
  if (copies.data.length === 0)
    return (
      <Empty symbol="tray" title={t('lyingEmpty')}>
        {t('lyingEmptyHelp')}
      </Empty>
    )
  const about = { ink: sheet.data, expected: task.sheet.sorting }
  return (
    <>
      <Hint>{t('copies', { n: copies.data.length })}</Hint>
      <InClass {...about} copies={copies.data} />
      <ByPupil {...about} copies={copies.data} />
    </>
  )
}

type About = { ink: InkDocument; expected: Expected }

/** Each thing, and each gap, with how many put what where. */
function InClass({ ink, expected, copies }: About & { copies: LyingOnCopies }) {
  const lies = copies.map((copy) => copy.lies)
  const written = spotsOf(ink).filter(
    ({ id, takes }) => takes === 'gap' || expected.says.some(({ spotId }) => spotId === id),
  )
  return (
    <Box title={t('inClass')}>
      {sortablesOf(ink).map((thing) => (
        <Line
          key={thing.id}
          label={nameOfThing(thing)}
          head={<ThingPicture thing={thing} px={56} />}
        >
          {tallyOf(thing.id, lies).map(({ of: spotId, count }) => (
            <Fact
              key={spotId ?? ''}
              right={isAsExpected({ thingId: thing.id, spotId, words: null }, expected)}
              words={t('chip', { where: whereIs(ink, spotId), n: count })}
            />
          ))}
        </Line>
      ))}
      {written.map(({ id }) => (
        <Line
          key={id}
          label={nameOfSpot(ink, id)}
          head={<Text variant="titleSmall">{nameOfSpot(ink, id)}</Text>}
        >
          {wordsOn(id, lies).map(({ of: words, count }) => (
            <Fact
              key={words}
              right={isAsExpected({ thingId: '', spotId: id, words }, expected)}
              words={t('chip', { where: words, n: count })}
            />
          ))}
        </Line>
      ))}
    </Box>
  )
}

const whereIs = (ink: InkDocument, spotId: string | null): string =>
  spotId === null ? t('onNoSpot') : nameOfSpot(ink, spotId)

/** Each pupil, with what they put where: what is elsewhere than expected says both. */
function ByPupil({ ink, expected, copies }: About & { copies: LyingOnCopies }) {
  const things = useMemo(() => new Map(sortablesOf(ink).map((thing) => [thing.id, thing])), [ink])
  return (
    <Box title={t('byPupil')}>
      {copies.map(({ pupil, pieceId, lies }) => {
        const name = `${pupil.firstName} ${pupil.lastName}`.trim()
        const said = lies.filter(({ thingId, spotId }) => things.has(thingId) || spotId !== null)
        return (
          <Line
            key={pieceId}
            label={name}
            head={
              <Bar gap="near">
                <Peg peg={pupil.peg} size={36} />
                <Text variant="titleSmall" style={{ flexShrink: 1 }}>
                  {name}
                </Text>
              </Bar>
            }
            end={
              <BigButton
                small
                tone="quiet"
                label={t('openPiece')}
                onPress={() => router.push(`/tray/${pieceId}`)}
              />
            }
          >
            {said.length === 0 ? <Hint>{t('nothingOn')}</Hint> : null}
            {said.map((lying) => (
              <PupilFact
                key={lying.thingId}
                {...{ ink, expected, lying }}
                thing={things.get(lying.thingId) ?? null}
              />
            ))}
          </Line>
        )
      })}
    </Box>
  )
}

function PupilFact({
  ink,
  expected,
  lying,
  thing,
}: About & { lying: Lying; thing: PlacedThing | null }) {
  const right = isAsExpected(lying, expected)
  const where = whereIs(ink, lying.spotId)
  const awaited =
    expected.lies.find(({ thingId }) => thingId === lying.thingId)?.spotId ?? NOTHING_EXPECTED
  const place =
    right === false && typeof awaited === 'string'
      ? t('elsewhere', { where, expected: nameOfSpot(ink, awaited) })
      : where
  return (
    <Fact
      right={right}
      head={thing ? <ThingPicture thing={thing} px={32} /> : null}
      words={
        thing
          ? place
          : `${place}: ${lying.words === null ? t('ownThing') : t('wrote', { words: lying.words })}`
      }
      label={thing ? `${nameOfThing(thing)}: ${place}` : undefined}
    />
  )
}

function Line({
  label,
  head,
  end = null,
  children,
}: {
  label: string
  head: ReactNode
  end?: ReactNode
  children: ReactNode
}) {
  const { tablet } = useWidth()
  const line = { borderTopWidth: 1, borderTopColor: colours.rule, paddingTop: space.near }
  if (!tablet)
    return (
      <Stack role="group" aria-label={label} gap="close" style={line}>
        <Bar between>
          {head}
          {end}
        </Bar>
        <Bar wrap gap="close">
          {children}
        </Bar>
      </Stack>
    )
  return (
    <Bar role="group" aria-label={label} gap="apart" align="flex-start" style={line}>
      <View style={{ width: 132, flexShrink: 0 }}>{head}</View>
      <Bar wrap gap="close" style={{ flex: 1 }}>
        {children}
      </Bar>
      {end}
    </Bar>
  )
}

/** One fact; as expected, elsewhere, or nothing expected: never by colour alone. */
function Fact({
  right,
  words,
  label,
  head = null,
}: {
  right: boolean | null
  words: string
  label?: string | undefined
  head?: ReactNode
}) {
  return (
    <Bar
      gap="close"
      role="img"
      aria-label={`${label ?? words}${right ? `, ${t('asExpected')}` : ''}`}
      style={{
        ...{ minHeight: 40, paddingHorizontal: space.near, paddingVertical: space.tight },
        ...{ borderRadius: corners.sheet, borderWidth: right === null ? 1 : 2 },
        backgroundColor: right ? colours.verdigrisTint : colours.sheet,
        borderColor: right === null ? colours.rule : right ? colours.verdigris : colours.clay,
      }}
    >
      {head}
      {right ? <DrawnSymbol name="check" size={18} colour={colours.verdigris} /> : null}
      <Stack gap="none" style={{ flexShrink: 1 }}>
        <Text variant="bodyMedium">{words}</Text>
      </Stack>
    </Bar>
  )
}
