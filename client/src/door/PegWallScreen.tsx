import type { PegWall } from '@nibquill/contract'
import type { SecretSymbol } from '@nibquill/core'
import { Redirect, router } from 'expo-router'
import { useEffect, useState } from 'react'
import { useNewVersion } from '../device/keepApplication'
import { ScrollView, View } from 'react-native'
import { Text } from 'react-native-paper'
import { codeOf } from '../kit/problems'
import { Bar, Heading, Stack, useWidth } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Empty, Loading, Notice, ProblemNotice } from '../kit/Notice'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { colours, corners, fonts, space } from '../kit/theme'
import { takeIdle, usePegs, useSession, useSignIn } from '../accounts'
import { SecretPad } from './SecretPad'
import { SignInProblem } from './SignInProblem'
import { Turn } from './SignInScreen'
import { t } from './words'

type HangingPeg = PegWall['pegs'][number]

/** The pegs of a class on a shared tablet: a pupil finds their own and taps it. */
export function PegWallScreen() {
  useNewVersion()
  const pegs = usePegs()
  const signIn = useSignIn()
  const [chosen, setChosen] = useState<HangingPeg | null>(null)
  const [idle] = useState(takeIdle)
  const refused = codeOf(signIn.error)
  // The door was shut, or the tablet taken away, between looking and tapping.
  useEffect(() => {
    if (refused === 'accounts/door-shut' || refused === 'accounts/no-tablet') void pegs.refetch()
    // Only a new refusal asks again.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [refused])

  if (codeOf(pegs.error) === 'accounts/no-tablet') return <Redirect href="/sign-in" />
  if (pegs.isPending) return <Loading />
  if (pegs.isError && !pegs.data) {
    return (
      <View style={{ flex: 1, justifyContent: 'center', backgroundColor: colours.paper }}>
        <ProblemNotice error={pegs.error} onRetry={() => void pegs.refetch()} />
        <OtherWays />
      </View>
    )
  }
  const wall = pegs.data
  const enter = (pupilId: string, secret: SecretSymbol[] | null) =>
    signIn.mutate(
      { way: 'peg', body: { pupilId, secret } },
      { onSuccess: () => router.replace('/desk') },
    )
  const tap = (peg: HangingPeg) => {
    signIn.reset()
    if (wall.asksSecret) setChosen(peg)
    else enter(peg.pupilId, null)
  }
  if (chosen && wall.open) {
    return (
      <SecretPad
        peg={chosen.peg}
        name={chosen.name}
        busy={signIn.isPending}
        error={signIn.error}
        onSecret={(secret) => enter(chosen.pupilId, secret)}
        onLeave={() => {
          signIn.reset()
          setChosen(null)
        }}
      />
    )
  }
  return (
    <ScrollView
      style={{ backgroundColor: colours.paper }}
      contentContainerStyle={{ flexGrow: 1, padding: space.far, gap: space.clear }}
    >
      <Stack
        role="main"
        gap="clear"
        style={{ width: '100%', maxWidth: 1120, alignSelf: 'center', flexGrow: 1 }}
      >
        <WallHead wall={wall} />
        {idle ? (
          <Notice tone="news" symbol="clock">
            {t('idlePegs')}
          </Notice>
        ) : null}
        {signIn.isError ? <SignInProblem error={signIn.error} /> : null}
        {wall.open ? (
          <Rack pegs={wall.pegs} opening={signIn.isPending ? signIn.variables : null} onTap={tap} />
        ) : (
          <Empty symbol="lock" title={shutSentence(wall)}>
            {t('doorCardWorks')}
          </Empty>
        )}
      </Stack>
      <OtherWays />
    </ScrollView>
  )
}

function WallHead({ wall }: { wall: PegWall }) {
  const session = useSession()
  const { tablet } = useWidth()
  const where = [
    t('pegsAt', { className: wall.className }),
    tablet ? session.data?.school?.name : null,
  ]
  return (
    <Bar gap="apart">
      <View style={{ flex: 1 }}>
        <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
          {where.filter(Boolean).join(', ')}
        </Text>
        <Heading level={1}>{wall.open ? t('pegsTitle') : t('doorShutTitle')}</Heading>
      </View>
      <Listen text={wall.open ? t('pegsHelp') : shutSentence(wall)} />
    </Bar>
  )
}

/** For those who come without a peg. */
const OtherWays = () => (
  <Bar role="navigation" wrap align="stretch" gap="none" style={{ justifyContent: 'center' }}>
    <Turn label={t('myCard')} symbol="card" onPress={() => router.push('/sign-in')} />
    <Turn label={t('grownUp')} symbol="class" onPress={() => router.push('/sign-in?who=adult')} />
  </Bar>
)

const shutSentence = (wall: PegWall): string =>
  [
    t(`doorShut.${wall.reason}`),
    wall.reason === 'too-early' ? t('doorOpensAt', { time: wall.opensAt }) : '',
  ]
    .filter(Boolean)
    .join(' ')

const PEG_SIZES = [132, 116, 104, 92, 82, 74]
const BESIDE_PX = 32
const BELOW_PX = 66
const HEAD_AND_FOOT_PX = 210

/**
 * The largest pegs that are all in sight at once; the smallest, and scrolling, when there are too
 * many.
 */
function fitPegs(count: number, width: number, height: number): { across: number; size: number } {
  const fits = PEG_SIZES.map((size) => ({
    size,
    across: Math.max(3, Math.floor(width / (size + BESIDE_PX))),
  }))
  return (
    fits.find(({ size, across }) => Math.ceil(count / across) * (size + BELOW_PX) <= height) ??
    fits.at(-1)!
  )
}

/** A board along which the pegs hang, with a name below each. */
function Rack({
  pegs,
  opening,
  onTap,
}: {
  pegs: HangingPeg[]
  opening: unknown
  onTap: (peg: HangingPeg) => void
}) {
  const { width, height, tablet } = useWidth()
  if (pegs.length === 0) return <Empty symbol="anchor" title={t('noPegs')} />
  const { across, size } = fitPegs(
    pegs.length,
    Math.min(width, 1160) - 40,
    height - HEAD_AND_FOOT_PX,
  )
  return (
    <Bar
      role="list"
      aria-label={t('pegsTitle')}
      wrap
      align="stretch"
      gap="none"
      style={{ rowGap: 20 }}
    >
      {pegs.map((hanging, i) => (
        <View key={hanging.pupilId} role="listitem" style={{ width: `${100 / across}%` }}>
          <Board
            size={size}
            first={i % across === 0}
            last={i % across === across - 1 || i === pegs.length - 1}
          />
          <Press
            label={hanging.name}
            onPress={() => onTap(hanging)}
            disabled={opening !== null}
            style={{
              alignItems: 'center',
              gap: space.close,
              paddingTop: space.near,
              paddingBottom: space.close,
              borderRadius: corners.button,
            }}
          >
            <Peg peg={hanging.peg} size={size} />
            <Text
              numberOfLines={1}
              style={{ fontFamily: fonts.strong, fontSize: tablet ? 20 : 17, lineHeight: 27 }}
            >
              {hanging.name}
            </Text>
          </Press>
        </View>
      ))}
    </Bar>
  )
}

/** The board's lower edge lies in its own shadow. */
const BOARD_EDGE = 'rgba(43, 33, 24, 0.14)'

/** The piece of board a peg is screwed to. */
const Board = ({ first, last, size }: { first: boolean; last: boolean; size: number }) => (
  <View
    aria-hidden
    style={{
      position: 'absolute',
      left: 0,
      right: 0,
      top: 8 + size * 0.2,
      height: size * 0.34,
      backgroundColor: colours.rule,
      borderTopLeftRadius: first ? 8 : 0,
      borderBottomLeftRadius: first ? 8 : 0,
      borderTopRightRadius: last ? 8 : 0,
      borderBottomRightRadius: last ? 8 : 0,
      borderBottomWidth: 4,
      borderBottomColor: BOARD_EDGE,
    }}
  />
)
