import type { Piece, Version } from '@nibquill/contract'
import type { ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { whenWasIt } from '../kit/dates'
import { Peg } from '../kit/Peg'
import { colours, corners } from '../kit/theme'
import { Sheet } from '../parts/Sheet'
import { EarlierVersions } from '../pieces'
import { useEarlier } from './reviewQueries'
import { strings } from './strings'

/**
 * Beside the work: whose it is, what they think, where it belongs, and what came before.
 * @param children - What is said to the pupil, where it waits for a decision.
 */
export function Facts({
  piece,
  version,
  children,
}: {
  piece: Piece
  version: Version | undefined
  children: ReactNode
}) {
  return (
    <View style={{ padding: 18, gap: 16 }}>
      <View style={{ flexDirection: 'row', gap: 12, alignItems: 'center' }}>
        <Peg peg={piece.pupil.peg} size={52} />
        <View style={{ flex: 1 }}>
          <Text variant="titleMedium">{`${piece.pupil.firstName} ${piece.pupil.lastName}`}</Text>
          {version ? (
            <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
              {strings.handedIn(whenWasIt(version.submittedAt))}
            </Text>
          ) : null}
        </View>
      </View>
      <View style={{ gap: 4 }}>
        <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
          {strings.thinks(piece.pupil.firstName)}
        </Text>
        <View
          style={{
            backgroundColor: colours.sheet,
            borderRadius: corners.sheet,
            padding: 12,
            borderBottomWidth: 1,
            borderBottomColor: colours.rule,
          }}
        >
          <Text
            variant="bodyLarge"
            style={version?.reflection ? undefined : { color: colours.inkSoft }}
          >
            {version?.reflection || strings.nothingSaid}
          </Text>
        </View>
      </View>
      <View style={{ gap: 2 }}>
        {[
          piece.task ? `${strings.task}: ${piece.task.title}` : null,
          `${strings.step}: ${strings.stepNames[version?.step ?? piece.step]}`,
          piece.folder ? `${strings.folder}: ${piece.folder.name}` : null,
        ]
          .filter((line) => line !== null)
          .map((line) => (
            <Text key={line} variant="bodySmall" style={{ color: colours.inkSoft }}>
              {line}
            </Text>
          ))}
      </View>
      {children}
      <EarlierInFolder piece={piece} />
      <EarlierVersions versions={piece.versions.slice(1)} />
    </View>
  )
}

/** What the pupil put into this folder before. */
function EarlierInFolder({ piece }: { piece: Piece }) {
  const earlier = useEarlier(piece.id)
  if (!earlier.data?.length || !piece.folder) return null
  return (
    <View style={{ gap: 8 }}>
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {strings.earlierIn(piece.folder.name)}
      </Text>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
        {earlier.data.map((other) => (
          <View key={other.id} accessibilityLabel={other.title} role="img">
            <Sheet piece={other} width={112} />
          </View>
        ))}
      </View>
    </View>
  )
}
