import type { MarkUp, Version } from '@nibquill/contract'
import { goOf } from '@nibquill/core'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { dayOf } from '../kit/dates'
import { Heading, Stack } from '../kit/layout'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { space, targets } from '../kit/theme'
import { PartsViewer } from '../parts/PartsViewer'
import { TeacherSaid } from './TeacherSaid'
import { t } from './words'

/** Which go a version was, and when it was handed in. */
export const versionLine = (all: Version[], version: Version): string =>
  t('versionLine', { number: goOf(all, version), day: dayOf(version.submittedAt) })

/** What was handed in before; each opens full size and never changes. */
export function EarlierVersions({
  versions,
  all,
  marks,
}: {
  versions: Version[]
  /** Every version of the piece, to tell which go each was. */
  all: Version[]
  /** What teachers wrote on copies of them. */
  marks: readonly MarkUp[]
}) {
  const [shown, setShown] = useState<string | null>(null)
  if (versions.length === 0) return null
  const lineOf = (version: Version) => versionLine(all, version)
  return (
    <Stack gap="near">
      <Heading>{t('earlierVersions')}</Heading>
      {versions.map((version) => (
        <Stack key={version.id} gap="near">
          <Press
            label={lineOf(version)}
            onPress={() => setShown(shown === version.id ? null : version.id)}
            style={{
              minHeight: targets.adult,
              flexDirection: 'row',
              alignItems: 'center',
              gap: space.near,
            }}
          >
            <DrawnSymbol name={shown === version.id ? 'down' : 'next'} />
            <Text variant="titleSmall" style={{ flex: 1 }}>
              {lineOf(version)}
            </Text>
          </Press>
          {shown === version.id ? (
            <>
              <View style={{ height: 320 }}>
                <PartsViewer
                  parts={version.parts}
                  title={version.title}
                  marks={marks.filter(({ versionId }) => versionId === version.id)}
                />
              </View>
              {version.reflection ? <Text variant="bodyMedium">{version.reflection}</Text> : null}
              <TeacherSaid decision={version.decision} />
            </>
          ) : null}
        </Stack>
      ))}
    </Stack>
  )
}
