import type { Version } from '@nibquill/contract'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { dayOf } from '../kit/dates'
import { Heading } from '../kit/layout'
import { Press } from '../kit/Press'
import { Symbol } from '../kit/Symbol'
import { targets } from '../kit/theme'
import { PartsViewer } from '../parts/PartsViewer'
import { strings } from './strings'

/** What was handed in before; each opens full size and never changes. */
export function EarlierVersions({ versions }: { versions: Version[] }) {
  const [shown, setShown] = useState<string | null>(null)
  if (versions.length === 0) return null
  return (
    <View style={{ gap: 10 }}>
      <Heading>{strings.earlierVersions}</Heading>
      {versions.map((version) => (
        <View key={version.id} style={{ gap: 8 }}>
          <Press
            label={strings.versionLine(version.number, dayOf(version.submittedAt))}
            onPress={() => setShown(shown === version.id ? null : version.id)}
            style={{ minHeight: targets.adult, flexDirection: 'row', alignItems: 'center', gap: 8 }}
          >
            <Symbol name={shown === version.id ? 'down' : 'next'} />
            <Text variant="titleSmall" style={{ flex: 1 }}>
              {strings.versionLine(version.number, dayOf(version.submittedAt))}
            </Text>
          </Press>
          {shown === version.id ? (
            <>
              <View style={{ height: 320 }}>
                <PartsViewer parts={version.parts} title={version.title} />
              </View>
              {version.reflection ? <Text variant="bodyMedium">{version.reflection}</Text> : null}
              {version.decision?.message ? (
                <Text variant="bodyMedium">{`${strings.teacherSays(version.decision.decidedBy)}: ${version.decision.message}`}</Text>
              ) : null}
            </>
          ) : null}
        </View>
      ))}
    </View>
  )
}
