import { MakeClass } from '@nibquill/contract'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { router } from 'expo-router'
import { Controller, useForm } from 'react-hook-form'
import { v7 as newId } from 'uuid'
import { schoolToday } from '../kit/dates'
import { BigButton } from '../kit/BigButton'
import { Box, FormLine, Select } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Empty, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { schoolStrings as strings, useMakeClass, useYears } from '../school'

/** A new class: name, year group, school year. */
export function ClassNewScreen() {
  const years = useYears()
  if (!isHere(years)) return <NotYet of={years} />
  if (years.data.years.length === 0) {
    return (
      <Page>
        <Head title={strings.newClass} back="/class" />
        <Empty
          symbol="year"
          title={strings.noYear}
          action={
            <BigButton
              label={strings.newYear}
              symbol="plus"
              onPress={() => router.push('/year/new')}
            />
          }
        >
          {strings.noYearHelp}
        </Empty>
      </Page>
    )
  }
  return <ClassForm years={years.data.years} />
}

function ClassForm({ years }: { years: { id: string; name: string; startsOn: string }[] }) {
  const make = useMakeClass()
  const today = schoolToday()
  const running = years.find(({ startsOn }) => startsOn <= today) ?? years.at(-1)!
  const { control, handleSubmit } = useForm({
    resolver: valibotResolver(MakeClass),
    defaultValues: { name: '', yearGroup: '', schoolYearId: running.id },
  })
  const save = handleSubmit((input) => {
    const id = newId()
    make.mutate({ id, input }, { onSuccess: () => router.replace(`/class?classId=${id}`) })
  })
  return (
    <Page
      foot={
        <BigButton
          label={strings.makeClass}
          symbol="check"
          onPress={() => void save()}
          busy={make.isPending}
        />
      }
    >
      <Head title={strings.newClass} back="/class" />
      {make.isError ? <ProblemNotice error={make.error} /> : null}
      <Box>
        <FormLine control={control} name="name" label={strings.className} autoFocus />
        <FormLine control={control} name="yearGroup" label={strings.yearGroup} />
        <Controller
          control={control}
          name="schoolYearId"
          render={({ field }) => (
            <Select
              label={strings.inYear}
              value={field.value}
              onChange={field.onChange}
              options={years.map(({ id, name }) => ({ value: id, label: name }))}
            />
          )}
        />
      </Box>
    </Page>
  )
}
