import { Strands, type Strand } from '@nibquill/contract'
import { FIRST_STRANDS } from '@nibquill/core'
import { useFieldArray } from 'react-hook-form'
import { v7 as newId } from 'uuid'
import * as v from 'valibot'
import { View } from 'react-native'
import { BigButton } from '../kit/BigButton'
import { Box, Hint } from '../kit/form'
import { FormLine } from '../kit/formLines'
import { useFormOf } from '../kit/useFormOf'
import { Head } from '../kit/Head'
import { Bar, Page } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { RoundButton } from '../kit/RoundButton'
import { colours, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { usePutStrands, useStrands, schoolWords } from '../school'
import { t } from './words'

/** The school's strands: a short list to change. A neutral set is there to begin with. */
export function StrandsScreen() {
  const strands = useStrands()
  if (!isHere(strands)) return <NotYet of={strands} />
  return (
    <StrandsList
      start={
        strands.data.length > 0
          ? strands.data
          : FIRST_STRANDS.map((name) => ({ id: newId(), name }))
      }
    />
  )
}

/** A line that was left empty is none. */
const StrandsForm = v.pipe(
  v.custom<{ list: Strand[] }>(() => true),
  v.transform(({ list }) => ({ list: list.filter(({ name }) => name.trim() !== '') })),
  v.object({ list: Strands }),
)

function StrandsList({ start }: { start: Strand[] }) {
  const put = usePutStrands()
  const { control, watch, send, refused } = useFormOf(
    StrandsForm,
    { list: start },
    async ({ list }) => {
      await put.mutateAsync(list)
      toast(schoolWords('kept'))
    },
  )
  const { fields, append, remove, move } = useFieldArray({ control, name: 'list', keyName: 'key' })
  const names = watch('list')
  return (
    <Page
      foot={
        <BigButton label={t('saveStrands')} symbol="check" onPress={send} busy={put.isPending} />
      }
    >
      <Head title={t('strands')} back="/year" />
      <Hint>{t('strandsHelp')}</Hint>
      {refused ? <ProblemNotice error={refused} /> : null}
      <Box>
        {fields.map((strand, i) => (
          <Bar key={strand.key} align="flex-end" gap="tight">
            <View style={{ flex: 1 }}>
              <FormLine
                control={control}
                name={`list.${i}.name`}
                label={t('strand', { n: i + 1 })}
              />
            </View>
            <RoundButton
              label={t('strandUp', { name: names[i]?.name ?? '' })}
              symbol="up"
              size={targets.adult}
              disabled={i === 0}
              onPress={() => move(i, i - 1)}
            />
            <RoundButton
              label={t('takeAway', { name: names[i]?.name ?? '' })}
              symbol="bin"
              size={targets.adult}
              colour={colours.clay}
              onPress={() => remove(i)}
            />
          </Bar>
        ))}
        <Bar wrap>
          <BigButton
            small
            tone="quiet"
            symbol="plus"
            label={t('addStrand')}
            onPress={() => append({ id: newId(), name: '' })}
          />
        </Bar>
      </Box>
    </Page>
  )
}
