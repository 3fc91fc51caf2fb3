import { router, useLocalSearchParams } from 'expo-router'
import { createElement, useState } from 'react'
import { useNewVersion } from '../device/keepApplication'
import { ScrollView } from 'react-native'
import { Text } from 'react-native-paper'
import { ForPupil } from '../kit/forPupil'
import { Name } from '../kit/Name'
import { laterFrom } from '../kit/later'
import { Loading, Notice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { DrawnSymbol, type SymbolName } from '../kit/DrawnSymbol'
import { colours, space, targets } from '../kit/theme'
import { CardDoor } from './CardDoor'
import { takeIdle, useSession } from '../accounts'
import { t } from './words'
import { Bar, Stack, Tile } from '../kit/layout'

type Who = 'pupil' | 'adult' | 'parent'
const OTHERS: { who: Who; label: string; symbol: SymbolName }[] = [
  { who: 'pupil', label: t('iAmPupil'), symbol: 'card' },
  { who: 'adult', label: t('iAmAdult'), symbol: 'class' },
  { who: 'parent', label: t('iAmParent'), symbol: 'home-heart' },
]

const adult = laterFrom(() => import('./adults'), createElement(Loading))
const AdultDoor = adult('AdultDoor')
const ParentDoor = adult('ParentDoor')

/** The door: a pupil's card, an adult's password, a parent's mail. */
export function SignInScreen() {
  useNewVersion()
  const { who: asked } = useLocalSearchParams<{ who?: string }>()
  const [who, setWho] = useState<Who>(asked === 'adult' || asked === 'parent' ? asked : 'pupil')
  const [idle] = useState(takeIdle)
  const session = useSession()
  return (
    <ScrollView
      style={{ backgroundColor: colours.paper }}
      contentContainerStyle={{
        flexGrow: 1,
        justifyContent: 'center',
        alignItems: 'center',
        padding: space.far,
        gap: space.clear,
      }}
    >
      <Stack gap="tight" style={{ alignItems: 'center' }}>
        <Name size={44} />
        <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
          {session.data?.school?.name ?? ' '}
        </Text>
      </Stack>
      <Tile
        role="main"
        gap="clear"
        style={{ width: '100%', maxWidth: who === 'pupil' ? 560 : 480, padding: space.far }}
      >
        <ForPupil value={who === 'pupil'}>
          {idle ? (
            <Notice tone="news" symbol="clock">
              {t('idle')}
            </Notice>
          ) : null}
          {who === 'pupil' ? <CardDoor /> : who === 'adult' ? <AdultDoor /> : <ParentDoor />}
        </ForPupil>
      </Tile>
      <Bar role="navigation" wrap align="stretch" gap="none" style={{ justifyContent: 'center' }}>
        {session.data?.door ? (
          <Turn label={t('toPegs')} symbol="anchor" onPress={() => router.replace('/pegs')} />
        ) : null}
        {OTHERS.filter((one) => one.who !== who).map((one) => (
          <Turn
            key={one.who}
            label={one.label}
            symbol={one.symbol}
            onPress={() => setWho(one.who)}
          />
        ))}
      </Bar>
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
        gap: space.near,
        alignItems: 'center',
        paddingHorizontal: space.clear,
      }}
    >
      <DrawnSymbol name={symbol} colour={colours.aubergine} />
      <Text variant="labelLarge" style={{ color: colours.aubergine }}>
        {label}
      </Text>
    </Press>
  )
}
