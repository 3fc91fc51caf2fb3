import { useState } from 'react'
import { Text } from 'react-native-paper'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Heading, Stack } from '../kit/layout'
import { Notice } from '../kit/Notice'
import { Spinner } from '../kit/Spinner'
import { colours } from '../kit/theme'
import type { useHandOverStage } from '../accounts'
import { OutboxLine } from '../pieces'
import { t } from './words'

/**
 * Stands instead of the desk while its work is brought home: nothing of the pupil who left can be
 * seen.
 */
export function HandOverCover({
  name,
  stage,
  onLeaveBehind,
  onBack,
}: {
  name: string
  stage: ReturnType<typeof useHandOverStage>
  onLeaveBehind: () => void
  /** Null where nobody is there to go back: the tablet was left lying. */
  onBack: (() => void) | null
}) {
  const [asking, setAsking] = useState(false)
  return (
    <Stack
      gap="clear"
      style={{
        flex: 1,
        backgroundColor: colours.paper,
        alignItems: 'center',
        justifyContent: 'center',
        padding: 24,
      }}
    >
      <Spinner size="large" colour={colours.aubergine} />
      <Heading level={1}>{t('keeping', { name })}</Heading>
      <Text variant="bodyLarge" style={{ color: colours.inkSoft, textAlign: 'center' }}>
        {t('keepingHelp')}
      </Text>
      <OutboxLine />
      {stage === 'no-network' ? (
        <Notice tone="attention" symbol="clock">
          {t('noNetwork')}
        </Notice>
      ) : null}
      {stage === 'not-kept' ? (
        <>
          <Notice tone="attention" symbol="clock">
            {t('notKept')}
          </Notice>
          <BigButton small tone="again" label={t('leaveBehind')} onPress={() => setAsking(true)} />
          <Ask
            visible={asking}
            title={t('leaveBehind')}
            yes={t('leaveBehind')}
            tone="again"
            onNo={() => setAsking(false)}
            onYes={onLeaveBehind}
          >
            {t('leaveBehindHelp')}
          </Ask>
        </>
      ) : null}
      {onBack && (stage === 'no-network' || stage === 'not-kept') ? (
        <BigButton tone="quiet" symbol="back" label={t('backToDesk', { name })} onPress={onBack} />
      ) : null}
    </Stack>
  )
}
