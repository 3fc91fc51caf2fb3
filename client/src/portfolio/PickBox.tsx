import { MAX_REASON_LENGTH, type Piece } from '@nibquill/contract'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { ProblemNotice } from '../kit/Notice'
import { Symbol } from '../kit/Symbol'
import { toast } from '../kit/Toast'
import { colours, corners } from '../kit/theme'
import { usePick } from './portfolioQueries'
import { strings } from './strings'

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
      { onSuccess: () => toast(strings.unpicked, () => keep(reason), strings.undo) },
    )
  return (
    <View
      style={{
        backgroundColor: colours.verdigrisTint,
        borderRadius: corners.button,
        padding: 16,
        gap: 12,
      }}
    >
      {pick.isError ? <ProblemNotice error={pick.error} /> : null}
      {writing ? (
        <>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            {strings.whyStarters.map((starter) => (
              <BigButton
                key={starter}
                small
                tone="quiet"
                label={`${starter.trim()}...`}
                onPress={() => setReason(starter)}
              />
            ))}
          </View>
          <Field
            label={strings.why}
            value={reason}
            onChangeText={setReason}
            maxLength={MAX_REASON_LENGTH}
            lines={2}
            autoFocus
          />
          <BigButton
            label={strings.save}
            symbol="check"
            tone="good"
            onPress={() => keep(reason)}
            busy={pick.isPending}
          />
        </>
      ) : piece.pick ? (
        <>
          <View style={{ flexDirection: 'row', gap: 10, alignItems: 'center' }}>
            <Symbol name="picked" size={28} colour={colours.verdigris} />
            <Text variant="titleMedium" style={{ flex: 1 }}>
              {strings.picked(term)}
            </Text>
          </View>
          {piece.pick.reason ? <Text variant="bodyLarge">{piece.pick.reason}</Text> : null}
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
            <BigButton
              label={strings.change}
              symbol="pencil"
              tone="quiet"
              onPress={() => setWriting(true)}
            />
            <BigButton label={strings.unpick} tone="quiet" onPress={takeOut} />
          </View>
        </>
      ) : (
        <BigButton
          label={strings.pick(term)}
          symbol="pick"
          tone="good"
          onPress={() => setWriting(true)}
        />
      )}
    </View>
  )
}
