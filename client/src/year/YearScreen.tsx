import { ChangeSchool, type SchoolYear } from '@nibquill/contract'
import { FILM_ORIGINALS } from '@nibquill/core'
import { router } from 'expo-router'
import type { ReactNode } from 'react'
import { Text } from 'react-native-paper'
import { useSession, useSignOut, accountsWords } from '../accounts'
import { HeldWordsBox, useHeldWords } from '../comments'
import { BigButton } from '../kit/BigButton'
import { dayOf } from '../kit/dates'
import { Box, Hint } from '../kit/form'
import { FormChoices, FormLine } from '../kit/formLines'
import { Bar, Heading, Page, Sides } from '../kit/layout'
import { Empty, Loading, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { SaveButton } from '../media/SaveButton'
import { colours, corners, space } from '../kit/theme'
import { toast } from '../kit/Toast'
import { useComeTogether } from '../kit/useComeTogether'
import { useFormOf } from '../kit/useFormOf'
import { useChangeSchool, useSchool, useYears, schoolWords } from '../school'
import { FirstSteps, useForFirstSteps } from '../classes'
import { t } from './words'

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
  const isAllHere = useComeTogether(...useForFirstSteps())
  if (!isHere(years)) return <NotYet of={years} />
  if (!isAllHere) return <Loading />
  const newYear = (
    <BigButton
      label={schoolWords('newYear')}
      symbol="plus"
      onPress={() => router.push('/year/new')}
    />
  )
  const own = (
    <>
      <BigButton
        label={accountsWords('account')}
        symbol="key"
        tone="quiet"
        onPress={() => router.push('/account')}
      />
      <BigButton
        label={accountsWords('signOut')}
        symbol="out"
        tone="quiet"
        onPress={() => signOut.mutate(undefined, { onSettled: () => router.replace('/sign-in') })}
      />
    </>
  )
  return (
    <Page sides>
      <Heading level={1}>{t('year')}</Heading>
      <FirstSteps />
      {years.data.years.length === 0 ? (
        <Empty symbol="year" title={schoolWords('noYear')} action={leads ? newYear : undefined}>
          {schoolWords('noYearHelp')}
        </Empty>
      ) : null}
      <Sides
        left={
          <>
            {years.data.years.map((year) => (
              <YearBox
                key={year.id}
                year={year}
                runningTermId={years.data.runningTermId}
                leads={leads}
              />
            ))}
            {leads && years.data.years.length > 0 ? <Bar wrap>{newYear}</Bar> : null}
          </>
        }
        right={leads ? <WholeSchool>{own}</WholeSchool> : own}
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
          <Bar
            key={term.id}
            wrap
            align="stretch"
            between
            style={{
              backgroundColor: running ? colours.verdigrisTint : colours.paper,
              borderRadius: corners.sheet,
              padding: space.apart,
            }}
          >
            <Text variant="titleSmall">
              {running ? `${term.name}, ${t('running')}` : term.name}
            </Text>
            <Text variant="bodyMedium">{days(term)}</Text>
          </Bar>
        )
      })}
      {year.closedDays.map((closed) => (
        <Bar
          key={closed.id}
          wrap
          align="stretch"
          between
          gap="none"
          style={{ paddingHorizontal: space.apart }}
        >
          <Hint>{closed.name}</Hint>
          <Hint>{days(closed)}</Hint>
        </Bar>
      ))}
      {leads ? (
        <Bar wrap>
          <BigButton
            small
            tone="quiet"
            symbol="edit"
            label={`${schoolWords('change')} ${year.name}`}
            onPress={() => router.push(`/year/${year.id}`)}
          />
        </Bar>
      ) : null}
    </Box>
  )
}

const PLACES = [
  { href: '/staff', label: schoolWords('staff'), symbol: 'people' },
  { href: '/strands', label: t('strands'), symbol: 'unit' },
  { href: '/roll-over', label: t('rollOver'), symbol: 'forward' },
  { href: '/class/list', label: t('wholeList'), symbol: 'upload' },
  { href: '/post-box', label: schoolWords('postBox'), symbol: 'mail' },
] as const

function WholeSchool({ children }: { children: ReactNode }) {
  const isAllHere = useComeTogether(useSchool(), useHeldWords())
  if (!isAllHere) return <Loading />
  return (
    <>
      <SchoolFactsBox />
      <HeldWordsBox />
      <Box title={t('more')}>
        <Bar wrap>
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
        </Bar>
        <Bar wrap>
          <SaveButton
            label={t('exportCsv')}
            address="/api/school/export?format=csv"
            name="pupils.csv"
          />
          {(['1.1', '1.2'] as const).map((version) => (
            <SaveButton
              key={version}
              label={t('exportOneRoster', { version })}
              address={`/api/school/export?format=oneroster-${version}`}
              name={`oneroster-${version}.zip`}
            />
          ))}
        </Bar>
      </Box>
      {children}
    </>
  )
}

function SchoolFactsBox() {
  const school = useSchool()
  return school.data ? <SchoolFacts {...school.data} /> : null
}

function SchoolFacts({ name, timeZone, filmOriginals }: ChangeSchool) {
  const change = useChangeSchool()
  const { control, formState, reset, send, refused } = useFormOf(
    ChangeSchool,
    { name, timeZone, filmOriginals },
    async (now) => {
      await change.mutateAsync(now)
      reset(now)
      toast(schoolWords('kept'))
    },
  )
  return (
    <Box title={t('school')}>
      <FormLine control={control} name="name" label={t('schoolName')} />
      <FormLine control={control} name="timeZone" label={t('timeZone')} />
      <FormChoices
        control={control}
        name="filmOriginals"
        label={t('filmOriginals')}
        options={FILM_ORIGINALS.map((value) => ({ value, label: t(`filmsKept.${value}`) }))}
      />
      <Hint>{t('filmsHelp')}</Hint>
      {refused ? <ProblemNotice error={refused} /> : null}
      {formState.isDirty ? (
        <Bar wrap>
          <BigButton small label={schoolWords('keep')} busy={change.isPending} onPress={send} />
        </Bar>
      ) : null}
    </Box>
  )
}
