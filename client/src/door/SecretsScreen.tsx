import { useLocalSearchParams } from 'expo-router'
import { Text } from 'react-native-paper'
import { Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Bar, Page, Tile } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { RoundButton } from '../kit/RoundButton'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, space, targets } from '../kit/theme'
import { useNewSecret, useSecrets } from '../accounts'
import { t } from './words'

/** Which three pictures each pupil of a class has, for the teacher to show them. */
export function SecretsScreen() {
  const { classId = '' } = useLocalSearchParams<{ classId?: string }>()
  const secrets = useSecrets(classId)
  const renew = useNewSecret(classId)
  if (!isHere(secrets)) return <NotYet of={secrets} />
  return (
    <Page max={980}>
      <Head title={t('secretsTitle')} back={`/class/door?classId=${classId}`} />
      <Hint>{t('secretsHelp')}</Hint>
      {renew.isError ? <ProblemNotice error={renew.error} /> : null}
      <Bar role="list" wrap align="stretch" gap="apart">
        {secrets.data.map(({ pupil, symbols }) => (
          <Tile
            key={pupil.id}
            role="listitem"
            style={{
              flexGrow: 1,
              flexBasis: 310,
              flexDirection: 'row',
              alignItems: 'center',
              padding: space.apart,
            }}
          >
            <Peg peg={pupil.peg} size={44} />
            <Text variant="titleSmall" style={{ flex: 1 }}>
              {pupil.firstName}
            </Text>
            <Bar
              role="img"
              aria-label={symbols.map((symbol) => t(`secretPictures.${symbol}`)).join(', ')}
              align="stretch"
            >
              {symbols.map((symbol, i) => (
                <DrawnSymbol key={i} name={symbol} size={32} colour={colours.aubergine} />
              ))}
            </Bar>
            <RoundButton
              size={targets.adult}
              label={t('secretNew', { name: pupil.firstName })}
              symbol="again"
              disabled={renew.isPending}
              onPress={() => renew.mutate(pupil.id)}
            />
          </Tile>
        ))}
      </Bar>
    </Page>
  )
}
