import type { Piece, PupilName } from '@nibquill/contract'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Listen } from '../kit/Listen'
import { Loading, ProblemNotice } from '../kit/Notice'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { Symbol } from '../kit/Symbol'
import { colours, corners, targets } from '../kit/theme'
import { piecesStrings as strings, useClassmates, usePieceWork } from '../pieces'

/** Who makes it with me: their pegs, to be chosen by tapping. All of them see the piece. */
export function MadeTogether({ piece, me }: { piece: Piece; me: string }) {
  const [open, setOpen] = useState(false)
  const classmates = useClassmates(open)
  const work = usePieceWork(piece.id)
  const others = piece.makers.filter(({ id }) => id !== me)
  const chosen = new Set(others.map(({ id }) => id))
  const toggle = (id: string) => {
    const next = new Set(chosen)
    if (!next.delete(id)) next.add(id)
    // Whoever begins it stays among them.
    void work.makers([me, ...next])
  }
  return (
    <View role="group" aria-label={strings.together} style={{ gap: 10 }}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10, flexWrap: 'wrap' }}>
        {others.map((maker) => (
          <View key={maker.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
            <Peg peg={maker.peg} size={40} />
            <Text variant="bodyLarge">{maker.firstName}</Text>
          </View>
        ))}
        <BigButton
          tone="quiet"
          symbol={open ? 'check' : 'friends'}
          label={
            open
              ? strings.togetherDone
              : others.length > 0
                ? strings.togetherChange
                : strings.together
          }
          onPress={() => setOpen(!open)}
        />
        <Listen text={strings.togetherHelp} />
      </View>
      {open ? (
        classmates.data ? (
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 10 }}>
            {classmates.data.length === 0 ? (
              <Text variant="bodyLarge">{strings.noClassmates}</Text>
            ) : null}
            {classmates.data.map((mate) => (
              <Mate
                key={mate.id}
                mate={mate}
                chosen={chosen.has(mate.id)}
                onPress={() => toggle(mate.id)}
              />
            ))}
          </View>
        ) : classmates.isError ? (
          <ProblemNotice error={classmates.error} onRetry={() => void classmates.refetch()} />
        ) : (
          <Loading />
        )
      ) : null}
    </View>
  )
}

function Mate({
  mate,
  chosen,
  onPress,
}: {
  mate: PupilName
  chosen: boolean
  onPress: () => void
}) {
  return (
    <Press
      role="checkbox"
      selected={chosen}
      label={mate.firstName}
      onPress={onPress}
      style={{
        width: 104,
        minHeight: targets.pupil + 40,
        alignItems: 'center',
        justifyContent: 'center',
        gap: 4,
        padding: 8,
        borderRadius: corners.button,
        borderWidth: 3,
        borderColor: chosen ? colours.verdigris : colours.rule,
        backgroundColor: chosen ? colours.verdigrisTint : colours.sheet,
      }}
    >
      <Peg peg={mate.peg} size={48} />
      <Text variant="labelMedium" numberOfLines={1}>
        {mate.firstName}
      </Text>
      {chosen ? (
        <View style={{ position: 'absolute', top: 4, right: 4 }}>
          <Symbol name="check" size={24} colour={colours.verdigris} />
        </View>
      ) : null}
    </Press>
  )
}
