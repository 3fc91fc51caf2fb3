import { PutYear, type SchoolYear } from '@nibquill/contract'
import { guessYear } from '@nibquill/core'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { router, useLocalSearchParams } from 'expo-router'
import { useFieldArray, useForm, type Control } from 'react-hook-form'
import { v7 as newId } from 'uuid'
import { View } from 'react-native'
import { schoolToday } from '../kit/dates'
import { BigButton } from '../kit/BigButton'
import { Box, FormDay, FormLine, Hint, Row } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { RoundButton } from '../kit/RoundButton'
import { colours, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { schoolStrings as strings, usePutYear, useYears } from '../school'

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
  const guess = guessYear(nextStart(years.data.years))
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
  const { control, handleSubmit } = useForm({
    resolver: valibotResolver(PutYear),
    defaultValues: start,
  })
  const save = handleSubmit((year) =>
    put.mutate(
      { id: id ?? newId(), year },
      {
        onSuccess: () => {
          toast(strings.yearKept)
          router.replace('/year')
        },
      },
    ),
  )
  return (
    <Page
      foot={
        <BigButton
          label={strings.saveYear}
          symbol="check"
          onPress={() => void save()}
          busy={put.isPending}
        />
      }
    >
      <Head title={id ? start.name : strings.newYear} back="/year" />
      {id ? null : <Hint>{strings.guessed}</Hint>}
      {put.isError ? <ProblemNotice error={put.error} /> : null}
      <Box>
        <FormLine control={control} name="name" label={strings.name} />
        <Row>
          <FormDay control={control} name="startsOn" label={strings.from} />
          <FormDay control={control} name="endsOn" label={strings.to} />
        </Row>
      </Box>
      <Spans
        control={control}
        list="terms"
        title={strings.terms}
        add={strings.addTerm}
        nameOf={(n) => strings.term(n)}
      />
      <Spans
        control={control}
        list="closedDays"
        title={strings.closedDays}
        help={strings.closedHelp}
        add={strings.addClosed}
        nameOf={() => strings.halfTerm}
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
  control: Control<PutYear>
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
        <View
          key={field.key}
          role="group"
          aria-label={field.name || nameOf(i + 1)}
          style={{
            gap: 8,
            borderBottomWidth: 1,
            borderBottomColor: colours.rule,
            paddingBottom: 12,
          }}
        >
          <View style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 8 }}>
            <View style={{ flex: 1 }}>
              <FormLine control={control} name={`${list}.${i}.name`} label={strings.name} />
            </View>
            <RoundButton
              label={strings.takeAway(field.name || nameOf(i + 1))}
              symbol="bin"
              size={targets.adult}
              colour={colours.clay}
              onPress={() => remove(i)}
            />
          </View>
          <Row>
            <FormDay control={control} name={`${list}.${i}.startsOn`} label={strings.from} />
            <FormDay control={control} name={`${list}.${i}.endsOn`} label={strings.to} />
          </Row>
        </View>
      ))}
      <Row>
        <BigButton
          small
          tone="quiet"
          symbol="plus"
          label={add}
          onPress={() =>
            append({ id: newId(), name: nameOf(fields.length + 1), startsOn: '', endsOn: '' })
          }
        />
      </Row>
    </Box>
  )
}
