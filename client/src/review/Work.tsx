import type { Part, Piece, Version } from '@nibquill/contract'
import { canBeMarked } from '@nibquill/core/ink/markUp'
import { router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Tabs } from '../kit/choices'
import { dayOf } from '../kit/dates'
import { Bar, Stack, useWidth } from '../kit/layout'
import { colours } from '../kit/theme'
import { PartsViewer } from '../parts/PartsViewer'
import { piecesWords, useMarkUps } from '../pieces'
import { t } from './words'

export const toMarkUp = (id: string, version: string, part: string) =>
  router.push({ pathname: '/tray/mark-up/[id]', params: { id, version, part } })

/** What was handed in besides this one, newest first. */
export const othersOf = ({ versions }: Piece, version: Version | undefined): Version[] =>
  versions.filter(({ id, withdrawnAt }) => id !== version?.id && withdrawnAt === null)

/**
 * The work on the desk, and another go beside it where that is wanted; on a phone in its place.
 * @param compared - Whether it is.
 */
export function Work({
  piece,
  version,
  title,
  compared,
  onCompare,
  onChosen,
}: {
  piece: Piece
  version: Version | undefined
  title: string
  compared: boolean
  onCompare: (compared: boolean) => void
  onChosen: (part: Part) => void
}) {
  const { wide } = useWidth()
  const others = othersOf(piece, version)
  const [chosenId, setChosenId] = useState<string | null>(null)
  const other = others.find(({ id }) => id === chosenId) ?? others[0]
  const marks = useMarkUps(piece.id).data ?? []
  const viewer = (of: Version | undefined, now: boolean) => (
    <PartsViewer
      key={of?.id}
      parts={of?.parts ?? piece.parts}
      title={of?.title ?? title}
      marks={marks.filter(({ versionId }) => versionId === of?.id)}
      onChosen={now ? onChosen : undefined}
      aside={(shown) => (
        <>
          {of && canBeMarked(shown.kind) ? (
            <BigButton
              small
              tone="quiet"
              symbol="quill"
              label={t('markUp')}
              shortcut={wide && now ? 'D' : undefined}
              onPress={() => toMarkUp(piece.id, of.id, shown.id)}
            />
          ) : null}
          {now && others.length > 0 ? (
            <BigButton
              small
              tone="quiet"
              symbol="duplicate"
              label={t(compared ? 'compareNo' : 'compare')}
              shortcut={wide ? 'V' : undefined}
              onPress={() => onCompare(!compared)}
            />
          ) : null}
        </>
      )}
    />
  )
  if (!compared || !other || !version) return viewer(version, true)
  const otherGo = (
    <Stack role="region" aria-label={lineOf(other)} gap="near" style={{ flex: 1, minWidth: 0 }}>
      {others.length > 1 ? (
        <Tabs
          label={t('compareWith')}
          value={other.id}
          options={others.map((one) => ({ value: one.id, label: String(one.number) }))}
          onChange={setChosenId}
        />
      ) : null}
      <Head version={other} />
      {viewer(other, false)}
    </Stack>
  )
  if (!wide)
    return (
      <>
        {otherGo}
        <Bar>
          <BigButton
            small
            tone="quiet"
            symbol="duplicate"
            label={t('compareNo')}
            onPress={() => onCompare(false)}
          />
        </Bar>
      </>
    )
  return (
    <Bar gap="apart" align="stretch" style={{ flex: 1 }}>
      {otherGo}
      <Stack role="region" aria-label={lineOf(version)} gap="near" style={{ flex: 1, minWidth: 0 }}>
        <Head version={version} />
        {viewer(version, true)}
      </Stack>
    </Bar>
  )
}

const lineOf = ({ number, submittedAt }: Version) =>
  piecesWords('versionLine', { number, day: dayOf(submittedAt) })

const Head = ({ version }: { version: Version }) => (
  <View>
    <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
      {lineOf(version)}
    </Text>
  </View>
)
