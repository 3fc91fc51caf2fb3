import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { router } from 'expo-router'
import { useSignOut } from '../accounts/session'
import { strings as accountWords } from '../accounts/strings'
import { BigButton } from '../kit/BigButton'
import { dayOf } from '../kit/dates'
import { Heading, Page } from '../kit/layout'
import { Empty, Loading, ProblemNotice } from '../kit/Notice'
import { colours, corners, shadow } from '../kit/theme'
import { useYears } from './schoolQueries'
import { strings } from './strings'

/** School years and their terms, the running one marked. */
export function YearScreen() {
  const years = useYears()
  const signOut = useSignOut()
  if (years.isPending) return <Loading />
  if (years.isError) return <ProblemNotice error={years.error} onRetry={() => void years.refetch()} />
  return (
    <Page>
      <Heading level={1}>{strings.year}</Heading>
      {years.data.years.map((year) => (
        <View key={year.id} role="region" aria-label={year.name} style={{ gap: 10 }}>
          <Heading>{year.name}</Heading>
          {year.terms.map((term) => {
            const running = term.id === years.data.runningTermId
            return (
              <View
                key={term.id}
                style={[
                  {
                    backgroundColor: running ? colours.verdigrisTint : colours.sheet,
                    borderRadius: corners.button,
                    padding: 16,
                    flexDirection: 'row',
                    justifyContent: 'space-between',
                    flexWrap: 'wrap',
                    gap: 8,
                  },
                  shadow,
                ]}
              >
                <Text variant="titleMedium">{running ? `${term.name}, ${strings.running}` : term.name}</Text>
                <Text variant="bodyMedium">{`${dayOf(`${term.startsOn}T12:00:00Z`)} – ${dayOf(`${term.endsOn}T12:00:00Z`)}`}</Text>
              </View>
            )
          })}
        </View>
      ))}
      {years.data.years.length === 0 ? (
        <Empty symbol="year" title={strings.noYear}>
          {strings.noYearHelp}
        </Empty>
      ) : null}
      <BigButton
        label={accountWords.signOut}
        symbol="out"
        tone="quiet"
        onPress={() => signOut.mutate(undefined, { onSettled: () => router.replace('/sign-in') })}
      />
    </Page>
  )
}
