import { MAX_SOUGHT_LENGTH } from '@nibquill/core'
import { useContext, useEffect, useState } from 'react'
import { Choices } from '../kit/choices'
import { monthOf } from '../kit/dates'
import { Field } from '../kit/Field'
import { ForPupil } from '../kit/forPupil'
import { Stack } from '../kit/layout'
import { NOTHING_SOUGHT, type Sought } from './foldersQueries'
import { t } from './words'

const PAUSE_MS = 350

/** What is typed, once the hand rests. */
export function useSettled(sought: Sought): Sought {
  const [settled, setSettled] = useState(sought)
  useEffect(() => {
    // A month is tapped: at once.
    const pause = sought.words === settled.words ? 0 : PAUSE_MS
    const timer = setTimeout(() => setSettled(sought), pause)
    return () => clearTimeout(timer)
  }, [sought, settled.words])
  return settled
}

/** Looks for pieces in a folder: by words in them, or by the month. */
export function LookFor({
  months,
  sought,
  onChange,
}: {
  /** `YYYY-MM`, newest first. */
  months: readonly string[]
  sought: Sought
  onChange: (sought: Sought) => void
}) {
  const forPupil = useContext(ForPupil)
  return (
    <Stack role="group" aria-label={t('lookFor')} gap="near">
      <Field
        label={t(forPupil ? 'lookForMine' : 'lookFor')}
        value={sought.words}
        onChangeText={(words) => onChange({ ...sought, words })}
        maxLength={MAX_SOUGHT_LENGTH}
      />
      {months.length > 1 ? (
        <Choices
          label={t('month')}
          hidden
          value={sought.month}
          options={[
            { value: NOTHING_SOUGHT.month, label: t('anyMonth') },
            ...months.map((month) => ({ value: month, label: monthOf(month) })),
          ]}
          onChange={(month) => onChange({ ...sought, month })}
        />
      ) : null}
    </Stack>
  )
}
