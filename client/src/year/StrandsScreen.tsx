import type { Strand } from '@nibquill/contract'
import { FIRST_STRANDS } from '@nibquill/core'
import { useState } from 'react'
import { v7 as newId } from 'uuid'
import { View } from 'react-native'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Box, Hint, Row } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { RoundButton } from '../kit/RoundButton'
import { colours, targets } from '../kit/theme'
import { toast } from '../kit/Toast'
import { schoolStrings as strings, usePutStrands, useStrands } from '../school'

/** The school's strands: a short list to change. A neutral set is there to begin with. */
export function StrandsScreen() {
  const strands = useStrands()
  if (!isHere(strands)) return <NotYet of={strands} />
  return (
    <StrandsForm
      start={
        strands.data.length > 0
          ? strands.data
          : FIRST_STRANDS.map((name) => ({ id: newId(), name }))
      }
    />
  )
}

function StrandsForm({ start }: { start: Strand[] }) {
  const put = usePutStrands()
  const [list, setList] = useState(start)
  const move = (i: number, by: -1 | 1) => {
    const next = [...list]
    const [one] = next.splice(i, 1)
    next.splice(i + by, 0, one!)
    setList(next)
  }
  const save = () =>
    put.mutate(
      list.filter(({ name }) => name.trim() !== ''),
      { onSuccess: () => toast(strings.kept) },
    )
  return (
    <Page
      foot={
        <BigButton label={strings.saveStrands} symbol="check" onPress={save} busy={put.isPending} />
      }
    >
      <Head title={strings.strands} back="/year" />
      <Hint>{strings.strandsHelp}</Hint>
      {put.isError ? <ProblemNotice error={put.error} /> : null}
      <Box>
        {list.map((strand, i) => (
          <View key={strand.id} style={{ flexDirection: 'row', alignItems: 'flex-end', gap: 4 }}>
            <View style={{ flex: 1 }}>
              <Field
                label={strings.strand(i + 1)}
                value={strand.name}
                onChangeText={(name) =>
                  setList(list.map((one) => (one.id === strand.id ? { ...one, name } : one)))
                }
              />
            </View>
            <RoundButton
              label={strings.strandUp(strand.name)}
              symbol="up"
              size={targets.adult}
              disabled={i === 0}
              onPress={() => move(i, -1)}
            />
            <RoundButton
              label={strings.takeAway(strand.name)}
              symbol="bin"
              size={targets.adult}
              colour={colours.clay}
              onPress={() => setList(list.filter(({ id }) => id !== strand.id))}
            />
          </View>
        ))}
        <Row>
          <BigButton
            small
            tone="quiet"
            symbol="plus"
            label={strings.addStrand}
            onPress={() => setList([...list, { id: newId(), name: '' }])}
          />
        </Row>
      </Box>
    </Page>
  )
}
