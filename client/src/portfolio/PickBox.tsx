import { MAX_REASON_LENGTH, type Piece } from '@nibquill/contract'
import { useState } from 'react'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { ProblemNotice } from '../kit/Notice'
import { Symbol } from '../kit/Symbol'
import { toast } from '../kit/Toast'
import { colours, corners, space } from '../kit/theme'
import { usePick } from './portfolioQueries'
import { Starters } from '../kit/Starters'
import { namesOf } from '../words'
import { messages } from './messages'
import { t } from './words'
import { Stack, Bar } from '../kit/layout'

/** Picks an approved piece into its term's chapter, with the reason why. */
export function PickBox({ piece }: { piece: Piece }) {
  const pick = usePick(piece.pupil.id)
  const [writing, setWriting] = useState(false)
  const [reason, setReason] = useState(piece.pick?.reason ?? '')
  const term = piece.term?.name ?? ''
  const keep = (words: string) =>
    pick.mutate(
      { pieceId: piece.id, pick: { reason: words } },
      { onSuccess: () => setWriting(false) },
    )
  const takeOut = () =>
    pick.mutate(
      { pieceId: piece.id, pick: null },
      { onSuccess: () => toast(t('unpicked'), { undo: () => keep(reason) }) },
    )
  return (
    <Stack
      style={{
        backgroundColor: colours.verdigrisTint,
        borderRadius: corners.button,
        padding: space.clear,
      }}
    >
      {pick.isError ? <ProblemNotice error={pick.error} /> : null}
      {writing ? (
        <>
          <Starters
            of={namesOf(messages.whyStarters).map((name) => t(`whyStarters.${name}`))}
            onPick={setReason}
          />
          <Field
            label={t('why')}
            value={reason}
            onChangeText={setReason}
            maxLength={MAX_REASON_LENGTH}
            lines={2}
            autoFocus
          />
          <BigButton
            label={t('save')}
            symbol="check"
            tone="good"
            onPress={() => keep(reason)}
            busy={pick.isPending}
          />
        </>
      ) : piece.pick ? (
        <>
          <Bar>
            <Symbol name="picked" size={28} colour={colours.verdigris} />
            <Text variant="titleMedium" style={{ flex: 1 }}>
              {t('picked', { term })}
            </Text>
          </Bar>
          {piece.pick.reason ? <Text variant="bodyLarge">{piece.pick.reason}</Text> : null}
          <Bar wrap align="stretch">
            <BigButton
              label={t('change')}
              symbol="pencil"
              tone="quiet"
              onPress={() => setWriting(true)}
            />
            <BigButton label={t('unpick')} tone="quiet" onPress={takeOut} />
          </Bar>
        </>
      ) : (
        <BigButton
          label={t('pick', { term })}
          symbol="pick"
          tone="good"
          onPress={() => setWriting(true)}
        />
      )}
    </Stack>
  )
}
