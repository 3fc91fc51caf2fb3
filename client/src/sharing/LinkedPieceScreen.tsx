import { router, useLocalSearchParams } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { codeOf } from '../kit/problems'
import { BigButton } from '../kit/BigButton'
import { fullDayOf } from '../kit/dates'
import { Heading, Page, useWidth } from '../kit/layout'
import { Name } from '../kit/Name'
import { Empty, Loading, ProblemNotice } from '../kit/Notice'
import { colours } from '../kit/theme'
import { SharedPieceView } from './SharedPieceView'
import { useLinkedPiece } from './sharingQueries'
import { t } from './words'

/** What the code on a printed page opens: that piece, and nothing else. */
export function LinkedPieceScreen() {
  const { token } = useLocalSearchParams<{ token: string }>()
  const linked = useLinkedPiece(token)
  const { width } = useWidth()
  if (linked.isPending) return <Loading />
  if (linked.isError) {
    return (
      <Page>
        {codeOf(linked.error) === 'sharing/link-for-school' ? (
          <Empty
            symbol="lock"
            title={t('forSchool')}
            action={
              <BigButton
                symbol="key"
                label={t('signInAsStaff')}
                onPress={() => router.push('/sign-in')}
              />
            }
          >
            {linked.error.message}
          </Empty>
        ) : codeOf(linked.error) === 'sharing/link-over' ? (
          <Empty symbol="link-off" title={t('linkOver')}>
            {linked.error.message}
          </Empty>
        ) : (
          <ProblemNotice error={linked.error} onRetry={() => void linked.refetch()} />
        )}
      </Page>
    )
  }
  const { piece, schoolName, expiresAt } = linked.data
  return (
    <Page max={820}>
      <Heading level={1}>{piece.pupilFirstName}</Heading>
      <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
        {schoolName}
      </Text>
      <SharedPieceView piece={piece} link={token} height={Math.min(560, width * 0.8)} />
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {t('linkEnds', { until: fullDayOf(expiresAt) })}
      </Text>
      <View style={{ opacity: 0.9, alignItems: 'flex-start' }}>
        <Name size={24} />
      </View>
    </Page>
  )
}
