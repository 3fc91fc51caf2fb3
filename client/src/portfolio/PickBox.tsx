import { MAX_REASON_LENGTH, type Piece } from '@nibquill/contract'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import type { Recorded } from '../device/useRecorded'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { ProblemNotice } from '../kit/Notice'
import { sentenceOf } from '../kit/problems'
import { RoundButton } from '../kit/RoundButton'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { toast } from '../kit/Toast'
import { colours, corners, space } from '../kit/theme'
import { Player } from '../media/Player'
import { sendVoice } from '../media/sendVoice'
import { SpokenWords } from '../media/VoiceRecorder'
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
  const term = piece.term?.name ?? ''
  const { pick: chosen } = piece
  const again = () =>
    chosen &&
    pick.mutate({
      pieceId: piece.id,
      pick: { reason: chosen.reason, voiceId: chosen.voice?.mediaId ?? null },
    })
  const takeOut = () =>
    pick.mutate(
      { pieceId: piece.id, pick: null },
      { onSuccess: () => toast(t('unpicked'), { undo: () => again() }) },
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
        <Why piece={piece} onKept={() => setWriting(false)} />
      ) : chosen ? (
        <>
          <Bar>
            <DrawnSymbol name="picked" size={28} colour={colours.verdigris} />
            <Text variant="titleMedium" style={{ flex: 1 }}>
              {t('picked', { term })}
            </Text>
          </Bar>
          {chosen.reason ? <Text variant="bodyLarge">{chosen.reason}</Text> : null}
          {chosen.voice ? <Player file={chosen.voice} /> : null}
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

/** Why it is picked, typed or said. */
function Why({ piece, onKept }: { piece: Piece; onKept: () => void }) {
  const pick = usePick(piece.pupil.id)
  const [reason, setReason] = useState(piece.pick?.reason ?? '')
  const [said, setSaid] = useState<Recorded | null>(null)
  // What was said before stays until it is taken out.
  const [there, setThere] = useState(piece.pick?.voice ?? null)
  const save = useMutation({
    mutationFn: async () => {
      const voiceId = said ? await sendVoice(said.file) : there ? undefined : null
      const change = { reason, ...(voiceId === undefined ? {} : { voiceId }) }
      return pick.mutateAsync({ pieceId: piece.id, pick: change })
    },
    onSuccess: onKept,
    onError: (error) => toast(sentenceOf(error)),
  })
  return (
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
      {there ? (
        <Bar>
          <View style={{ flex: 1 }}>
            <Player file={there} />
          </View>
          <RoundButton
            label={t('takeOutWhy')}
            symbol="bin"
            colour={colours.clay}
            onPress={() => setThere(null)}
          />
        </Bar>
      ) : (
        <SpokenWords label={t('sayWhy')} said={said} onChange={setSaid} />
      )}
      <BigButton
        label={t('save')}
        symbol="check"
        tone="good"
        onPress={() => save.mutate()}
        busy={save.isPending}
      />
    </>
  )
}
