import { PutYear, type SchoolYear } from '@nibquill/contract'
import { guessYear } from '@nibquill/core'
import { router, useLocalSearchParams } from 'expo-router'
import { useFieldArray, type Control } from 'react-hook-form'
import { v7 as newId } from 'uuid'
import { View } from 'react-native'
import { schoolToday } from '../kit/dates'
import { BigButton } from '../kit/BigButton'
import { Box, Hint } from '../kit/form'
import { FormDay, FormLine } from '../kit/formLines'
import { useFormOf } from '../kit/useFormOf'
import { Head } from '../kit/Head'
import { Bar, Page, Sides, Stack } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { RoundButton } from '../kit/RoundButton'
import { colours, space, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { usePutYear, useYears, schoolWords } from '../school'
import { t } from './words'

/** The next 1 September, or the one after the last year that is known. */
function nextStart(years: readonly SchoolYear[]): string {
  const last = years
    .map(({ endsOn }) => endsOn)
    .sort()
    .at(-1)
  if (last) {
    const after = new Date(`${last}T12:00:00Z`)
    after.setUTCDate(after.getUTCDate() + 1)
    return after.toISOString().slice(0, 10)
  }
  const [year = 0, month = 1] = schoolToday().split('-').map(Number)
  return `${month >= 8 ? year : year - 1}-09-01`
}

/** A school year: its days, its terms and the days without lessons. */
export function YearEditScreen() {
  const { id } = useLocalSearchParams<{ id: string }>()
  const years = useYears()
  if (!isHere(years)) return <NotYet of={years} />
  const year = years.data.years.find((candidate) => candidate.id === id)
  const guess = guessYear(nextStart(years.data.years), (season, year) =>
    t(`seasons.${season}`, { year: String(year) }),
  )
  const start: PutYear = year
    ? {
        name: year.name,
        startsOn: year.startsOn,
        endsOn: year.endsOn,
        terms: year.terms,
        closedDays: year.closedDays,
      }
    : { ...guess, terms: guess.terms.map((term) => ({ ...term, id: newId() })), closedDays: [] }
  return <YearForm id={year?.id ?? null} start={start} />
}

function YearForm({ id, start }: { id: string | null; start: PutYear }) {
  const put = usePutYear()
  const { control, send, refused } = useFormOf(PutYear, start, async (year) => {
    await put.mutateAsync({ id: id ?? newId(), year })
    toast(t('yearKept'))
    router.replace('/year')
  })
  return (
    <Page
      sides
      foot={<BigButton label={t('saveYear')} symbol="check" onPress={send} busy={put.isPending} />}
    >
      <Head title={id ? start.name : schoolWords('newYear')} back="/year" />
      {id ? null : <Hint>{t('guessed')}</Hint>}
      {refused ? <ProblemNotice error={refused} /> : null}
      <Sides
        left={
          <>
            <Box>
              <FormLine control={control} name="name" label={t('name')} />
              <Bar wrap>
                <FormDay control={control} name="startsOn" label={t('from')} />
                <FormDay control={control} name="endsOn" label={t('to')} />
              </Bar>
            </Box>
            <Spans
              control={control}
              list="terms"
              title={t('terms')}
              add={t('addTerm')}
              nameOf={(n) => t('term', { number: n })}
            />
          </>
        }
        right={
          <Spans
            control={control}
            list="closedDays"
            title={t('closedDays')}
            help={t('closedHelp')}
            add={t('addClosed')}
            nameOf={() => t('halfTerm')}
          />
        }
      />
    </Page>
  )
}

/** Named runs of days, to be added and taken away. */
function Spans({
  control,
  list,
  title,
  help,
  add,
  nameOf,
}: {
  control: Control<PutYear, unknown, PutYear>
  list: 'terms' | 'closedDays'
  title: string
  help?: string
  add: string
  nameOf: (number: number) => string
}) {
  const { fields, append, remove } = useFieldArray({ control, name: list, keyName: 'key' })
  return (
    <Box title={title}>
      {help ? <Hint>{help}</Hint> : null}
      {fields.map((field, i) => (
        <Stack
          key={field.key}
          role="group"
          aria-label={field.name || nameOf(i + 1)}
          gap="near"
          style={{
            borderBottomWidth: 1,
            borderBottomColor: colours.rule,
            paddingBottom: space.apart,
          }}
        >
          <Bar align="flex-end">
            <View style={{ flex: 1 }}>
              <FormLine control={control} name={`${list}.${i}.name`} label={t('name')} />
            </View>
            <RoundButton
              label={t('takeAway', { name: field.name || nameOf(i + 1) })}
              symbol="bin"
              size={targets.adult}
              colour={colours.clay}
              onPress={() => remove(i)}
            />
          </Bar>
          <Bar wrap>
            <FormDay control={control} name={`${list}.${i}.startsOn`} label={t('from')} />
            <FormDay control={control} name={`${list}.${i}.endsOn`} label={t('to')} />
          </Bar>
        </Stack>
      ))}
      <Bar wrap>
        <BigButton
          small
          tone="quiet"
          symbol="plus"
          label={add}
          onPress={() =>
            append({ id: newId(), name: nameOf(fields.length + 1), startsOn: '', endsOn: '' })
          }
        />
      </Bar>
    </Box>
  )
}
