import { useState } from 'react'
import { PaperProvider, Text } from 'react-native-paper'
import { forgetRemembered } from '../api/rememberQueries'
import { BigButton } from '../kit/BigButton'
import { ForPupil } from '../kit/forPupil'
import { Listen } from '../kit/Listen'

import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, theme } from '../kit/theme'
import { t } from './words'
import { t as kitWords } from '../kit/words'
import { Stack } from '../kit/layout'

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
      <Stack
        role="alert"
        gap="clear"
        style={{
          flex: 1,
          minHeight: 400,
          alignItems: 'center',
          justifyContent: 'center',
          padding: 24,
          backgroundColor: colours.paper,
        }}
      >
        <DrawnSymbol name="alert" size={64} colour={colours.clay} />
        <Text
          role="heading"
          aria-level={1}
          variant="headlineMedium"
          style={{ textAlign: 'center' }}
        >
          {t('broken')}
        </Text>
        <Text
          variant="bodyLarge"
          style={{ textAlign: 'center', color: colours.inkSoft, maxWidth: 420 }}
        >
          {t('brokenHelp')}
        </Text>
        <Listen text={`${t('broken')} ${t('brokenHelp')}`} />
        <Stack style={{ width: '100%', maxWidth: 360 }}>
          <BigButton label={t('brokenBack')} symbol="back" onPress={() => void loadAnew('/')} />
          <BigButton
            label={kitWords('tryAgain')}
            symbol="again"
            tone="quiet"
            onPress={() => void loadAnew(address)}
          />
        </Stack>
      </Stack>
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
