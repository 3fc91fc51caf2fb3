import { MakeClass } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { schoolToday } from '../kit/dates'
import { BigButton } from '../kit/BigButton'
import { Box } from '../kit/form'
import { FormLine, FormSelect } from '../kit/formLines'
import { useFormOf } from '../kit/useFormOf'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Empty, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { useMakeClass, useYears, schoolWords } from '../school'
import { t } from './words'

/** A new class: name, year group, school year. */
export function ClassNewScreen() {
  const years = useYears()
  if (!isHere(years)) return <NotYet of={years} />
  if (years.data.years.length === 0) {
    return (
      <Page>
        <Head title={t('newClass')} back="/class" />
        <Empty
          symbol="year"
          title={schoolWords('noYear')}
          action={
            <BigButton
              label={schoolWords('newYear')}
              symbol="plus"
              onPress={() => router.push('/year/new')}
            />
          }
        >
          {schoolWords('noYearHelp')}
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
  const [id] = useState(() => newId())
  const start = { name: '', yearGroup: '', schoolYearId: running.id }
  const { control, send, refused } = useFormOf(MakeClass, start, async (input) => {
    await make.mutateAsync({ id, input })
    router.replace(`/class?classId=${id}`)
  })
  return (
    <Page
      foot={
        <BigButton label={t('makeClass')} symbol="check" onPress={send} busy={make.isPending} />
      }
    >
      <Head title={t('newClass')} back="/class" />
      {refused ? <ProblemNotice error={refused} /> : null}
      <Box>
        <FormLine control={control} name="name" label={t('className')} autoFocus />
        <FormLine control={control} name="yearGroup" label={t('yearGroup')} />
        <FormSelect
          control={control}
          name="schoolYearId"
          label={t('inYear')}
          options={years.map(({ id, name }) => ({ value: id, label: name }))}
        />
      </Box>
    </Page>
  )
}
