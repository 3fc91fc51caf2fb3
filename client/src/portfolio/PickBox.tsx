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
import { Symbol } from '../kit/Symbol'
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
  const [reason, setReason] = useState(piece.pick?.reason ?? '')
  const term = piece.term?.name ?? ''
  const [said, setSaid] = useState<Recorded | null>(null)
  const there = piece.pick?.voice ?? null
  const [without, setWithout] = useState(false)
  const keep = (words: string, voiceId?: string | null) =>
    pick.mutate(
      { pieceId: piece.id, pick: { reason: words, ...(voiceId === undefined ? {} : { voiceId }) } },
      { onSuccess: () => setWriting(false) },
    )
  const save = useMutation({
    mutationFn: async () => (said ? sendVoice(said.file) : without ? null : undefined),
    onSuccess: (voiceId) => keep(reason, voiceId),
    onError: (error) => toast(sentenceOf(error)),
  })
  const takeOut = () =>
    pick.mutate(
      { pieceId: piece.id, pick: null },
      { onSuccess: () => toast(t('unpicked'), { undo: () => keep(reason, there?.mediaId) }) },
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
          {there && !said && !without ? (
            <Bar>
              <View style={{ flex: 1 }}>
                <Player file={there} />
              </View>
              <RoundButton
                label={t('takeOutWhy')}
                symbol="bin"
                colour={colours.clay}
                onPress={() => setWithout(true)}
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
            busy={save.isPending || pick.isPending}
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
          {there ? <Player file={there} /> : null}
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
