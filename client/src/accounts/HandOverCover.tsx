import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Heading } from '../kit/layout'
import { Notice } from '../kit/Notice'
import { Spinner } from '../kit/Spinner'
import { colours } from '../kit/theme'
import type { useHandOverStage } from './handOver'
import { strings } from './strings'

/**
 * Stands instead of the desk while its work is brought home: nothing of the pupil who left can be
 * seen.
 */
export function HandOverCover({
  name,
  stage,
  onLeaveBehind,
}: {
  name: string
  stage: ReturnType<typeof useHandOverStage>
  onLeaveBehind: () => void
}) {
  const [asking, setAsking] = useState(false)
  return (
    <View
      style={{
        flex: 1,
        backgroundColor: colours.paper,
        alignItems: 'center',
        justifyContent: 'center',
        padding: 24,
        gap: 18,
      }}
    >
      <Spinner size="large" colour={colours.aubergine} />
      <Heading level={1}>{strings.keeping(name)}</Heading>
      <Text variant="bodyLarge" style={{ color: colours.inkSoft, textAlign: 'center' }}>
        {strings.keepingHelp}
      </Text>
      {stage === 'no-network' ? (
        <Notice tone="attention" symbol="clock">
          {strings.noNetwork}
        </Notice>
      ) : null}
      {stage === 'not-kept' ? (
        <>
          <Notice tone="attention" symbol="clock">
            {strings.notKept}
          </Notice>
          <BigButton
            small
            tone="again"
            label={strings.leaveBehind}
            onPress={() => setAsking(true)}
          />
          <Ask
            visible={asking}
            title={strings.leaveBehind}
            yes={strings.leaveBehind}
            tone="again"
            onNo={() => setAsking(false)}
            onYes={onLeaveBehind}
          >
            {strings.leaveBehindHelp}
          </Ask>
        </>
      ) : null}
    </View>
  )
}
