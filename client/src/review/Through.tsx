import type { PieceLine } from '@nibquill/contract'
import type { Sitting } from '@nibquill/core/review/sitting'
import { View } from 'react-native'
import { BigButton } from '../kit/BigButton'
import { TrayDrawing } from '../kit/FolderDrawing'
import { Heading, Page, Stack } from '../kit/layout'
import { Text } from 'react-native-paper'
import { colours } from '../kit/theme'
import { t } from './words'

/** The end of a sitting: what was done, what one went past, and what came meanwhile. */
export function Through({
  sitting,
  fresh,
  firstId,
  onGo,
  onShowFresh,
}: {
  sitting: Sitting<PieceLine>
  fresh: number
  /** The first that still waits. */
  firstId: string | null
  onGo: (pieceId: string | null) => void
  onShowFresh: () => void
}) {
  const left = sitting.pieces.length - sitting.gone.size
  return (
    <Page>
      <Stack role="status" gap="clear" style={{ alignItems: 'center', paddingTop: 40 }}>
        <TrayDrawing count={left} width={190} />
        <Heading level={1}>{t('throughTitle')}</Heading>
        <Text variant="bodyLarge">{t('through', { count: sitting.gone.size })}</Text>
        {left > 0 ? (
          <Text variant="bodyLarge" style={{ color: colours.ochreText }}>
            {t('leftOver', { count: left })}
          </Text>
        ) : null}
      </Stack>
      <View style={{ gap: 12, alignSelf: 'center' }}>
        {firstId ? <BigButton label={t('toLeftOver')} onPress={() => onGo(firstId)} /> : null}
        {fresh > 0 ? (
          <BigButton
            tone={firstId ? 'quiet' : 'primary'}
            label={`${t('newSince', { count: fresh })}, ${t('showNew')}`}
            onPress={onShowFresh}
          />
        ) : null}
        <BigButton tone="quiet" label={t('backToTray')} onPress={() => onGo(null)} />
      </View>
    </Page>
  )
}
