import { useLocalSearchParams } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { RoundButton } from '../kit/RoundButton'
import { Symbol } from '../kit/Symbol'
import { colours, corners, shadow, targets } from '../kit/theme'
import { accountsStrings as strings, useNewSecret, useSecrets } from '../accounts'

/** Which three pictures each pupil of a class has, for the teacher to show them. */
export function SecretsScreen() {
  const { classId = '' } = useLocalSearchParams<{ classId?: string }>()
  const secrets = useSecrets(classId)
  const renew = useNewSecret(classId)
  if (!isHere(secrets)) return <NotYet of={secrets} />
  return (
    <Page max={980}>
      <Head title={strings.secretsTitle} back={`/class/door?classId=${classId}`} />
      <Hint>{strings.secretsHelp}</Hint>
      {renew.isError ? <ProblemNotice error={renew.error} /> : null}
      <View role="list" style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
        {secrets.data.map(({ pupil, symbols }) => (
          <View
            key={pupil.id}
            role="listitem"
            style={[
              {
                flexGrow: 1,
                flexBasis: 310,
                backgroundColor: colours.sheet,
                borderRadius: corners.button,
                padding: 12,
                gap: 12,
              },
              { flexDirection: 'row', alignItems: 'center' },
              shadow,
            ]}
          >
            <Peg peg={pupil.peg} size={44} />
            <Text variant="titleSmall" style={{ flex: 1 }}>
              {pupil.firstName}
            </Text>
            <View
              role="img"
              aria-label={symbols.map(strings.picture).join(', ')}
              style={{ flexDirection: 'row', gap: 8 }}
            >
              {symbols.map((symbol, i) => (
                <Symbol key={i} name={symbol} size={32} colour={colours.aubergine} />
              ))}
            </View>
            <RoundButton
              size={targets.adult}
              label={strings.secretNew(pupil.firstName)}
              symbol="again"
              disabled={renew.isPending}
              onPress={() => renew.mutate(pupil.id)}
            />
          </View>
        ))}
      </View>
    </Page>
  )
}
