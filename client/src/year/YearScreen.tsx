import type { SchoolYear } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { accountsStrings as accountWords, useSession, useSignOut } from '../accounts'
import { BigButton } from '../kit/BigButton'
import { dayOf } from '../kit/dates'
import { Field } from '../kit/Field'
import { Box, faultsOf, Hint, Row, sentence } from '../kit/form'
import { Heading, Page } from '../kit/layout'
import { Empty, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { SaveButton } from '../media/SaveButton'
import { colours, corners } from '../kit/theme'
import { toast } from '../kit/Toast'
import { schoolStrings as strings, useChangeSchool, useSchool, useYears } from '../school'
import { FirstSteps } from '../classes'

const days = (span: { startsOn: string; endsOn: string }): string =>
  span.startsOn === span.endsOn
    ? dayOf(`${span.startsOn}T12:00:00Z`)
    : `${dayOf(`${span.startsOn}T12:00:00Z`)} – ${dayOf(`${span.endsOn}T12:00:00Z`)}`

/**
 * School years with their terms, the running one marked; for whoever leads also everything that
 * concerns the whole school.
 */
export function YearScreen() {
  const years = useYears()
  const session = useSession()
  const signOut = useSignOut()
  const leads = session.data?.person?.leads ?? false
  if (!isHere(years)) return <NotYet of={years} />
  const newYear = (
    <BigButton label={strings.newYear} symbol="plus" onPress={() => router.push('/year/new')} />
  )
  return (
    <Page>
      <Heading level={1}>{strings.year}</Heading>
      <FirstSteps />
      {years.data.years.length === 0 ? (
        <Empty symbol="year" title={strings.noYear} action={leads ? newYear : undefined}>
          {strings.noYearHelp}
        </Empty>
      ) : null}
      {years.data.years.map((year) => (
        <YearBox key={year.id} year={year} runningTermId={years.data.runningTermId} leads={leads} />
      ))}
      {leads && years.data.years.length > 0 ? <Row>{newYear}</Row> : null}
      {leads ? <WholeSchool /> : null}
      <BigButton
        label={accountWords.account}
        symbol="key"
        tone="quiet"
        onPress={() => router.push('/account')}
      />
      <BigButton
        label={accountWords.signOut}
        symbol="out"
        tone="quiet"
        onPress={() => signOut.mutate(undefined, { onSettled: () => router.replace('/sign-in') })}
      />
    </Page>
  )
}

function YearBox({
  year,
  runningTermId,
  leads,
}: {
  year: SchoolYear
  runningTermId: string | null
  leads: boolean
}) {
  return (
    <Box title={year.name}>
      {year.terms.map((term) => {
        const running = term.id === runningTermId
        return (
          <View
            key={term.id}
            style={{
              backgroundColor: running ? colours.verdigrisTint : colours.paper,
              borderRadius: corners.sheet,
              padding: 12,
              flexDirection: 'row',
              justifyContent: 'space-between',
              flexWrap: 'wrap',
              gap: 8,
            }}
          >
            <Text variant="titleSmall">
              {running ? `${term.name}, ${strings.running}` : term.name}
            </Text>
            <Text variant="bodyMedium">{days(term)}</Text>
          </View>
        )
      })}
      {year.closedDays.map((closed) => (
        <View
          key={closed.id}
          style={{
            flexDirection: 'row',
            justifyContent: 'space-between',
            flexWrap: 'wrap',
            paddingHorizontal: 12,
          }}
        >
          <Hint>{closed.name}</Hint>
          <Hint>{days(closed)}</Hint>
        </View>
      ))}
      {leads ? (
        <Row>
          <BigButton
            small
            tone="quiet"
            symbol="edit"
            label={`${strings.change} ${year.name}`}
            onPress={() => router.push(`/year/${year.id}`)}
          />
        </Row>
      ) : null}
    </Box>
  )
}

const PLACES = [
  { href: '/staff', label: strings.staff, symbol: 'people' },
  { href: '/strands', label: strings.strands, symbol: 'unit' },
  { href: '/roll-over', label: strings.rollOver, symbol: 'forward' },
  { href: '/class/list', label: strings.wholeList, symbol: 'upload' },
  { href: '/post-box', label: strings.postBox, symbol: 'mail' },
] as const

function WholeSchool() {
  return (
    <>
      <SchoolFactsBox />
      <Box title={strings.more}>
        <Row>
          {PLACES.map(({ href, label, symbol }) => (
            <BigButton
              key={href}
              small
              tone="quiet"
              symbol={symbol}
              label={label}
              onPress={() => router.push(href)}
            />
          ))}
        </Row>
        <Row>
          <SaveButton
            label={strings.exportCsv}
            address="/api/school/export?format=csv"
            name="pupils.csv"
          />
          {(['1.1', '1.2'] as const).map((version) => (
            <SaveButton
              key={version}
              label={strings.exportOneRoster(version)}
              address={`/api/school/export?format=oneroster-${version}`}
              name={`oneroster-${version}.zip`}
            />
          ))}
        </Row>
      </Box>
    </>
  )
}

function SchoolFactsBox() {
  const school = useSchool()
  const change = useChangeSchool()
  const [draft, setDraft] = useState<{ name: string; timeZone: string } | null>(null)
  if (!school.data) return null
  const shown = draft ?? school.data
  const faults = faultsOf(change.error)
  return (
    <Box title={strings.school}>
      <Field
        label={strings.schoolName}
        value={shown.name}
        onChangeText={(name) => setDraft({ ...shown, name })}
        error={sentence(faults.name?.[0])}
      />
      <Field
        label={strings.timeZone}
        value={shown.timeZone}
        autoCapitalize="none"
        onChangeText={(timeZone) => setDraft({ ...shown, timeZone })}
        error={sentence(faults.timeZone?.[0])}
      />
      {change.isError && Object.keys(faults).length === 0 ? (
        <ProblemNotice error={change.error} />
      ) : null}
      {draft ? (
        <Row>
          <BigButton
            small
            label={strings.keep}
            busy={change.isPending}
            onPress={() =>
              change.mutate(draft, {
                onSuccess: () => {
                  setDraft(null)
                  toast(strings.kept)
                },
              })
            }
          />
        </Row>
      ) : null}
    </Box>
  )
}
