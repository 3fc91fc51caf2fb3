import { router, useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { useNewVersion } from '../device/keepApplication'
import { ScrollView, View } from 'react-native'
import { Text } from 'react-native-paper'
import { ForPupil } from '../kit/forPupil'
import { Name } from '../kit/Name'
import { Notice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { Symbol, type SymbolName } from '../kit/Symbol'
import { colours, corners, shadow, targets } from '../kit/theme'
import { AdultDoor } from './AdultDoor'
import { CardDoor } from './CardDoor'
import { ParentDoor } from './ParentDoor'
import { accountsStrings as strings, takeIdle, useSession } from '../accounts'

type Who = 'pupil' | 'adult' | 'parent'
const OTHERS: { who: Who; label: string; symbol: SymbolName }[] = [
  { who: 'pupil', label: strings.iAmPupil, symbol: 'card' },
  { who: 'adult', label: strings.iAmAdult, symbol: 'class' },
  { who: 'parent', label: strings.iAmParent, symbol: 'home-heart' },
]

/** The door: a pupil's card, an adult's password, a parent's mail. */
export function SignInScreen() {
  useNewVersion()
  const { who: asked } = useLocalSearchParams<{ who?: string }>()
  const [who, setWho] = useState<Who>(asked === 'adult' ? 'adult' : 'pupil')
  const [idle] = useState(takeIdle)
  const session = useSession()
  return (
    <ScrollView
      style={{ backgroundColor: colours.paper }}
      contentContainerStyle={{
        flexGrow: 1,
        justifyContent: 'center',
        alignItems: 'center',
        padding: 20,
        gap: 18,
      }}
    >
      <View style={{ alignItems: 'center', gap: 4 }}>
        <Name size={44} />
        <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
          {session.data?.school?.name ?? ' '}
        </Text>
      </View>
      <View
        role="main"
        style={[
          {
            width: '100%',
            maxWidth: who === 'pupil' ? 560 : 480,
            backgroundColor: colours.sheet,
            borderRadius: corners.button,
            padding: 22,
            gap: 16,
          },
          shadow,
        ]}
      >
        <ForPupil value={who === 'pupil'}>
          {idle ? (
            <Notice tone="news" symbol="clock">
              {strings.idle}
            </Notice>
          ) : null}
          {who === 'pupil' ? <CardDoor /> : who === 'adult' ? <AdultDoor /> : <ParentDoor />}
        </ForPupil>
      </View>
      <View
        role="navigation"
        style={{ flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'center' }}
      >
        {session.data?.door ? (
          <Turn label={strings.toPegs} symbol="anchor" onPress={() => router.replace('/pegs')} />
        ) : null}
        {OTHERS.filter((one) => one.who !== who).map((one) => (
          <Turn
            key={one.who}
            label={one.label}
            symbol={one.symbol}
            onPress={() => setWho(one.who)}
          />
        ))}
      </View>
    </ScrollView>
  )
}

export function Turn({
  label,
  symbol,
  onPress,
}: {
  label: string
  symbol: SymbolName
  onPress: () => void
}) {
  return (
    <Press
      role="link"
      onPress={onPress}
      style={{
        minHeight: targets.pupil,
        flexDirection: 'row',
        gap: 10,
        alignItems: 'center',
        paddingHorizontal: 16,
      }}
    >
      <Symbol name={symbol} colour={colours.aubergine} />
      <Text variant="labelLarge" style={{ color: colours.aubergine }}>
        {label}
      </Text>
    </Press>
  )
}
