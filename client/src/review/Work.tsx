import type { Part, Piece, Version } from '@nibquill/contract'
import { goOf } from '@nibquill/core'
import { canBeMarked } from '@nibquill/core/ink/markUp'
import { router } from 'expo-router'
import { useState, type ReactNode } from 'react'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Tabs } from '../kit/choices'
import { Bar, Stack, useWidth } from '../kit/layout'
import { colours } from '../kit/theme'
import { PartsViewer } from '../parts/PartsViewer'
import { useMarkUps, versionLine } from '../pieces'
import { t } from './words'

export const toMarkUp = (id: string, version: string, part: string) =>
  router.push({ pathname: '/tray/mark-up/[id]', params: { id, version, part } })

/** What was handed in besides this one, newest first. */
export const othersOf = ({ versions }: Piece, version: Version | undefined): Version[] =>
  versions.filter(({ id, withdrawnAt }) => id !== version?.id && withdrawnAt === null)

type WorkProps = {
  piece: Piece
  version: Version | undefined
  title: string
  /** Whether another go lies beside it. */
  compared: boolean
  onCompare: (compared: boolean) => void
  onChosen: (part: Part) => void
}

/**
 * The work on the desk, and another go beside it where that is wanted; on a phone in its place.
 */
export function Work(props: WorkProps) {
  const { piece, version, compared, onCompare } = props
  const { wide } = useWidth()
  const others = othersOf(piece, version)
  const [chosenId, setChosenId] = useState<string | null>(null)
  const other = others.find(({ id }) => id === chosenId) ?? others[0]
  if (!compared || !other || !version)
    return <Viewer key={version?.id} {...props} of={version} now hasOthers={others.length > 0} />
  const otherGo = (
    <Go all={piece.versions} version={other}>
      {others.length > 1 ? (
        <Tabs
          label={t('compareWith')}
          value={other.id}
          options={others.map((one) => ({
            value: one.id,
            label: String(goOf(piece.versions, one)),
          }))}
          onChange={setChosenId}
        />
      ) : null}
      <Viewer key={other.id} {...props} of={other} />
    </Go>
  )
  if (!wide)
    return (
      <>
        {otherGo}
        <Bar>
          <CompareButton compared onCompare={onCompare} />
        </Bar>
      </>
    )
  return (
    <Bar gap="apart" align="stretch" style={{ flex: 1 }}>
      {otherGo}
      <Go all={piece.versions} version={version}>
        <Viewer key={version.id} {...props} of={version} now hasOthers />
      </Go>
    </Bar>
  )
}

/** One go, with what was written on it. @param now - The one that is judged. */
function Viewer({
  piece,
  title,
  of,
  now = false,
  hasOthers = false,
  compared,
  onCompare,
  onChosen,
}: WorkProps & { of: Version | undefined; now?: boolean; hasOthers?: boolean }) {
  const { wide } = useWidth()
  const marks = useMarkUps(piece.id).data ?? []
  return (
    <PartsViewer
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
          {hasOthers ? <CompareButton compared={compared} onCompare={onCompare} /> : null}
        </>
      )}
    />
  )
}

function CompareButton({ compared, onCompare }: Pick<WorkProps, 'compared' | 'onCompare'>) {
  const { wide } = useWidth()
  return (
    <BigButton
      small
      tone="quiet"
      symbol="duplicate"
      label={t(compared ? 'compareNo' : 'compare')}
      shortcut={wide ? 'V' : undefined}
      onPress={() => onCompare(!compared)}
    />
  )
}

/** Which go it is, over what is shown of it. */
function Go({ all, version, children }: { all: Version[]; version: Version; children: ReactNode }) {
  const line = versionLine(all, version)
  return (
    <Stack role="region" aria-label={line} gap="near" style={{ flex: 1, minWidth: 0 }}>
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {line}
      </Text>
      {children}
    </Stack>
  )
}
