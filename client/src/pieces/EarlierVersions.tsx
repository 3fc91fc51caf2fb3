import type { MarkUp, Version } from '@nibquill/contract'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { dayOf } from '../kit/dates'
import { Heading, Stack } from '../kit/layout'
import { Press } from '../kit/Press'
import { Symbol } from '../kit/Symbol'
import { space, targets } from '../kit/theme'
import { PartsViewer } from '../parts/PartsViewer'
import { TeacherSaid } from './TeacherSaid'
import { t } from './words'

/** What was handed in before; each opens full size and never changes. */
export function EarlierVersions({
  versions,
  marks,
}: {
  versions: Version[]
  /** What teachers wrote on copies of them. */
  marks: readonly MarkUp[]
}) {
  const [shown, setShown] = useState<string | null>(null)
  if (versions.length === 0) return null
  return (
    <Stack gap="near">
      <Heading>{t('earlierVersions')}</Heading>
      {versions.map((version) => (
        <Stack key={version.id} gap="near">
          <Press
            label={t('versionLine', { number: version.number, day: dayOf(version.submittedAt) })}
            onPress={() => setShown(shown === version.id ? null : version.id)}
            style={{
              minHeight: targets.adult,
              flexDirection: 'row',
              alignItems: 'center',
              gap: space.near,
            }}
          >
            <Symbol name={shown === version.id ? 'down' : 'next'} />
            <Text variant="titleSmall" style={{ flex: 1 }}>
              {t('versionLine', { number: version.number, day: dayOf(version.submittedAt) })}
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
