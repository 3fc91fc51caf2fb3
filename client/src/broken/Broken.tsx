import { useState } from 'react'
import { View } from 'react-native'
import { PaperProvider, Text } from 'react-native-paper'
import { forgetRemembered } from '../api/rememberQueries'
import { BigButton } from '../kit/BigButton'
import { ForPupil } from '../kit/forPupil'
import { Listen } from '../kit/Listen'
import { strings } from '../kit/strings'
import { Symbol } from '../kit/Symbol'
import { colours, theme } from '../kit/theme'

/**
 * What is remembered of the school may be what the screen broke on: it is asked for anew. What was
 * made here lies in a store of its own.
 */
async function loadAnew(address: string): Promise<void> {
  await forgetRemembered()
  window.location.assign(address)
}

/** Stands in for a screen that broke, so that nobody is left with an empty page. */
export function Broken() {
  // As it was when the screen broke: the router, left without a screen, takes the first address it
  // knows.
  const [address] = useState(() => window.location.href)
  return (
    // The screen that broke may have been the one that provides these.
    <PaperProvider theme={theme}>
      <View
        role="alert"
        style={{
          flex: 1,
          minHeight: 400,
          alignItems: 'center',
          justifyContent: 'center',
          padding: 24,
          gap: 18,
          backgroundColor: colours.paper,
        }}
      >
        <Symbol name="alert" size={64} colour={colours.clay} />
        <Text
          role="heading"
          aria-level={1}
          variant="headlineMedium"
          style={{ textAlign: 'center' }}
        >
          {strings.broken}
        </Text>
        <Text
          variant="bodyLarge"
          style={{ textAlign: 'center', color: colours.inkSoft, maxWidth: 420 }}
        >
          {strings.brokenHelp}
        </Text>
        <Listen text={`${strings.broken} ${strings.brokenHelp}`} />
        <View style={{ gap: 12, width: '100%', maxWidth: 360 }}>
          <BigButton label={strings.brokenBack} symbol="back" onPress={() => void loadAnew('/')} />
          <BigButton
            label={strings.tryAgain}
            symbol="again"
            tone="quiet"
            onPress={() => void loadAnew(address)}
          />
        </View>
      </View>
    </PaperProvider>
  )
}

export function BrokenForPupil() {
  return (
    <ForPupil value>
      <Broken />
    </ForPupil>
  )
}
