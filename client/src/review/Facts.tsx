import type { Part, PartFile, Piece, Version } from '@nibquill/contract'
import type { ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useWhen } from '../kit/useWhen'
import { Hint } from '../kit/form'
import { Peg } from '../kit/Peg'
import { colours, corners, space } from '../kit/theme'
import { SaveButton } from '../media/SaveButton'
import { nameOf } from '../parts/partKinds'
import { Sheet } from '../parts/Sheet'
import { EarlierVersions, useMarkUps } from '../pieces'
import { useEarlier } from './reviewQueries'
import { Transcripts } from './Transcripts'
import { t as kitWords } from '../kit/words'
import { t } from './words'
import { Stack, Bar } from '../kit/layout'

/**
 * Beside the work: whose it is, what they think, where it belongs, and what came before.
 * @param children - What is said to the pupil, where it waits for a decision.
 * @param foot - What is seldom done with it, below everything else.
 */
export function Facts({
  piece,
  version,
  children,
  foot,
}: {
  piece: Piece
  version: Version | undefined
  children: ReactNode
  foot: ReactNode
}) {
  const { whenWasIt } = useWhen()
  const marks = useMarkUps(piece.id).data ?? []
  return (
    <Stack gap="clear" style={{ padding: space.clear }}>
      <Bar gap="apart">
        <Peg peg={piece.pupil.peg} size={52} />
        <View style={{ flex: 1 }}>
          <Text variant="titleMedium">{`${piece.pupil.firstName} ${piece.pupil.lastName}`}</Text>
          {version ? (
            <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
              {t('handedIn', { when: whenWasIt(version.submittedAt) })}
            </Text>
          ) : null}
        </View>
      </Bar>
      <Thoughts name={piece.pupil.firstName} said={version?.reflection ?? ''} />
      <Stack gap="hair">
        {[
          piece.task ? `${t('task')}: ${piece.task.title}` : null,
          `${t('step')}: ${kitWords(`stepNames.${version?.step ?? piece.step}`)}`,
          piece.folder ? `${t('folder')}: ${piece.folder.name}` : null,
        ]
          .filter((line) => line !== null)
          .map((line) => (
            <Text key={line} variant="bodySmall" style={{ color: colours.inkSoft }}>
              {line}
            </Text>
          ))}
      </Stack>
      <NotMade parts={version?.parts ?? []} />
      <Transcripts pieceId={piece.id} parts={version?.parts ?? []} />
      {children}
      {version ? (
        <TakeAway
          piece={piece}
          version={version}
          marked={marks.some(({ versionId }) => versionId === version.id)}
        />
      ) : null}
      <EarlierInFolder piece={piece} />
      <EarlierVersions
        all={piece.versions}
        versions={piece.versions.filter(
          ({ id, withdrawnAt }) => withdrawnAt === null && id !== version?.id,
        )}
        marks={marks}
      />
      {foot}
    </Stack>
  )
}

/** What its makers think of it. */
const Thoughts = ({ name, said }: { name: string; said: string }) => (
  <Stack gap="tight">
    <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
      {t('thinks', { name })}
    </Text>
    <View
      style={{
        backgroundColor: colours.sheet,
        borderRadius: corners.sheet,
        padding: space.apart,
        borderBottomWidth: 1,
        borderBottomColor: colours.rule,
      }}
    >
      <Text variant="bodyLarge" style={said ? undefined : { color: colours.inkSoft }}>
        {said || t('nothingSaid')}
      </Text>
    </View>
  </Stack>
)

/** Its files, or on paper; with what was written on it where something was. */
function TakeAway({ piece, version, marked }: { piece: Piece; version: Version; marked: boolean }) {
  const name = `${piece.pupil.firstName} ${version.title}`
  const page = `/api/book/pieces/${piece.id}`
  return (
    <Bar wrap>
      <SaveButton
        label={t('takeFiles')}
        address={`/api/review/pieces/${piece.id}/files`}
        name={`${name}.zip`}
      />
      <SaveButton label={t('printed')} symbol="print" address={page} name={`${name}.pdf`} />
      {marked ? (
        <SaveButton
          label={t('printedMarked')}
          symbol="print"
          address={`${page}?marked=true`}
          name={`${name}.pdf`}
        />
      ) : null}
    </Bar>
  )
}

/** What is shown as the file itself, since nothing smaller could be made of it, and why. */
const NotMade = ({ parts }: { parts: Part[] }) =>
  parts.flatMap((part, i) =>
    Object.values(part.files).map(({ mediaId, state }: PartFile) =>
      state === 'damaged' || state === 'unmade' ? (
        <Hint key={mediaId} tone="attention">
          {t(`notMade.${state}`, { part: nameOf(part, i) })}
        </Hint>
      ) : null,
    ),
  )

/** What the pupil put into this folder before. */
function EarlierInFolder({ piece }: { piece: Piece }) {
  const earlier = useEarlier(piece.id)
  if (!earlier.data?.length || !piece.folder) return null
  return (
    <Stack gap="near">
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {t('earlierIn', { folder: piece.folder.name })}
      </Text>
      <Bar wrap align="stretch" gap="apart">
        {earlier.data.map((other) => (
          <View key={other.id} accessibilityLabel={other.title} role="img">
            <Sheet piece={other} width={112} />
          </View>
        ))}
      </Bar>
    </Stack>
  )
}
