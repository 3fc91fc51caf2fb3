import type { Piece, PupilName } from '@nibquill/contract'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Listen } from '../kit/Listen'
import { Loading, ProblemNotice } from '../kit/Notice'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, space, targets } from '../kit/theme'
import { useClassmates, usePieceWork } from '../pieces'
import { t } from './words'
import { Stack, Bar } from '../kit/layout'

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
    <Stack role="group" aria-label={t('together')} gap="near">
      <Bar wrap>
        {others.map((maker) => (
          <Bar key={maker.id} gap="close">
            <Peg peg={maker.peg} size={40} />
            <Text variant="bodyLarge">{maker.firstName}</Text>
          </Bar>
        ))}
        <BigButton
          tone="quiet"
          symbol={open ? 'check' : 'friends'}
          label={open ? t('togetherDone') : others.length > 0 ? t('togetherChange') : t('together')}
          onPress={() => setOpen(!open)}
        />
        <Listen text={t('togetherHelp')} />
      </Bar>
      {open ? (
        classmates.data ? (
          <Bar wrap align="stretch">
            {classmates.data.length === 0 ? (
              <Text variant="bodyLarge">{t('noClassmates')}</Text>
            ) : null}
            {classmates.data.map((mate) => (
              <Mate
                key={mate.id}
                mate={mate}
                chosen={chosen.has(mate.id)}
                onPress={() => toggle(mate.id)}
              />
            ))}
          </Bar>
        ) : classmates.isError ? (
          <ProblemNotice error={classmates.error} onRetry={() => void classmates.refetch()} />
        ) : (
          <Loading />
        )
      ) : null}
    </Stack>
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
        gap: space.tight,
        padding: space.near,
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
          <DrawnSymbol name="check" size={24} colour={colours.verdigris} />
        </View>
      ) : null}
    </Press>
  )
}
