import type { Peg as PegLook, PupilLine } from '@nibquill/contract'
import { COLOURS, PEG_SYMBOLS } from '@nibquill/core'
import { useLocalSearchParams } from 'expo-router'
import { useState } from 'react'
import { View } from 'react-native'
import { Dialog, Text } from 'react-native-paper'
import { Overlay } from '../kit/Overlay'
import { BigButton } from '../kit/BigButton'
import { Choices } from '../kit/choices'
import { Exchangeable, ExchangeField } from '../kit/dragging'
import { Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Bar, Page, Stack } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { colours, corners, pigments, space } from '../kit/theme'
import { toast } from '../kit/Toast'
import { useClass, usePutPeg } from '../school'
import { t as kitWords } from '../kit/words'
import { t } from './words'

const nameOf = (pupil: PupilLine): string => `${pupil.firstName} ${pupil.lastName}`.trim()

/**
 * The pegs of a class: exchanged by dragging or by tapping two, chosen anew by tapping one twice.
 */
export function PegsScreen() {
  const { classId = '' } = useLocalSearchParams<{ classId?: string }>()
  const detail = useClass(classId)
  const put = usePutPeg(classId)
  const [held, setHeld] = useState<string | null>(null)
  const [choosing, setChoosing] = useState<PupilLine | null>(null)
  if (!isHere(detail)) return <NotYet of={detail} />
  const { pupils } = detail.data
  const exchange = (a: string, b: string) => {
    const [one, other] = [pupils.find(({ id }) => id === a), pupils.find(({ id }) => id === b)]
    if (!one || !other || one === other) return
    const back = () => put.mutate({ pupilId: one.id, peg: one.peg })
    put.mutate(
      { pupilId: one.id, peg: other.peg },
      {
        onSuccess: () =>
          toast(t('exchanged', { a: nameOf(one), b: nameOf(other) }), { undo: back }),
      },
    )
  }
  const tap = (pupil: PupilLine) => {
    if (held === pupil.id) setChoosing(pupil)
    else if (held) exchange(held, pupil.id)
    setHeld(held ? null : pupil.id)
  }
  const dropped = (id: string, other: string) => {
    setHeld(null)
    exchange(id, other)
  }
  return (
    <Page max={980}>
      <Head title={`${t('pegs')}, ${detail.data.name}`} back={`/class?classId=${classId}`} />
      <Hint>{t('pegsHelp')}</Hint>
      {put.isError ? <ProblemNotice error={put.error} /> : null}
      <ExchangeField onExchange={dropped}>
        <Bar wrap align="stretch">
          {pupils.map((pupil) => (
            <HangingPeg
              key={pupil.id}
              pupil={pupil}
              held={held === pupil.id}
              onTap={() => tap(pupil)}
            />
          ))}
        </Bar>
      </ExchangeField>
      {choosing ? (
        <ChoosePeg
          pupil={choosing}
          onClose={() => setChoosing(null)}
          onChoose={(peg) => {
            setChoosing(null)
            put.mutate({ pupilId: choosing.id, peg })
          }}
        />
      ) : null}
    </Page>
  )
}

function HangingPeg({
  pupil,
  held,
  onTap,
}: {
  pupil: PupilLine
  held: boolean
  onTap: () => void
}) {
  return (
    <Exchangeable id={pupil.id}>
      {(under) => (
        <Press
          label={t('pegOf', { name: nameOf(pupil) })}
          selected={held}
          onPress={onTap}
          style={{
            width: 104,
            alignItems: 'center',
            gap: space.close,
            padding: 10,
            borderRadius: corners.button,
            borderWidth: 2,
            borderColor: held || under ? colours.aubergine : 'transparent',
            backgroundColor: held || under ? colours.aubergineTint : 'transparent',
          }}
        >
          <Peg peg={pupil.peg} size={62} />
          <Text variant="bodySmall" style={{ textAlign: 'center' }}>
            {nameOf(pupil)}
          </Text>
        </Press>
      )}
    </Exchangeable>
  )
}

function ChoosePeg({
  pupil,
  onClose,
  onChoose,
}: {
  pupil: PupilLine
  onClose: () => void
  onChoose: (peg: PegLook) => void
}) {
  const [peg, setPeg] = useState(pupil.peg)
  return (
    <Overlay visible title={t('choosePeg', { name: nameOf(pupil) })} width={640} onClose={onClose}>
      <Dialog.ScrollArea style={{ maxHeight: 420 }}>
        <Stack style={{ paddingVertical: space.apart }}>
          <Bar wrap gap="tight">
            {PEG_SYMBOLS.map((symbol) => (
              <Press
                key={symbol}
                role="radio"
                label={kitWords(`symbols.${symbol}`)}
                selected={symbol === peg.symbol}
                onPress={() => setPeg({ ...peg, symbol })}
                style={{
                  padding: 3,
                  borderRadius: 30,
                  borderWidth: 2,
                  borderColor: symbol === peg.symbol ? pigments[peg.colour] : 'transparent',
                }}
              >
                <Peg peg={{ symbol, colour: peg.colour }} size={44} />
              </Press>
            ))}
          </Bar>
          <Choices
            label={t('colour')}
            options={COLOURS.map((colour) => ({
              value: colour,
              label: kitWords(`colours.${colour}`),
            }))}
            value={peg.colour}
            onChange={(colour) => setPeg({ ...peg, colour })}
          />
        </Stack>
      </Dialog.ScrollArea>
      <View style={{ padding: space.clear }}>
        <BigButton label={t('hang')} symbol="check" onPress={() => onChoose(peg)} />
      </View>
    </Overlay>
  )
}
