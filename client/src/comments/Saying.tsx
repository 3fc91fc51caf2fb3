import type { SaidBy, Spoken } from '@nibquill/contract'
import { useContext, type ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useWhen } from '../kit/useWhen'
import { Hint } from '../kit/form'
import { ForPupil } from '../kit/forPupil'
import { Bar, Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Peg } from '../kit/Peg'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, space } from '../kit/theme'
import { Player } from '../media/Player'
import { t } from './words'

const EDGES = {
  pupil: colours.sea,
  teacher: colours.aubergine,
  parent: colours.verdigris,
} as const

/**
 * One thing that was said: who, when, in words or to be heard.
 * @param note - How it stands.
 * @param children - What can be done about it.
 */
export function Saying({
  by,
  saidAt,
  words,
  voice,
  thoughts = false,
  note,
  role = 'listitem',
  children,
}: {
  by: Pick<SaidBy, 'name' | 'role' | 'peg' | 'mine'>
  saidAt: string
  words: string
  voice: Spoken | null
  /** Of what they made with others, by themselves. */
  thoughts?: boolean
  note?: string | undefined
  role?: 'listitem' | 'group'
  children?: ReactNode
}) {
  const { whenWasIt } = useWhen()
  const forPupil = useContext(ForPupil)
  const name = by.mine ? t('me') : by.name
  return (
    <Stack role={role} gap="close" style={{ ...STRIP, borderLeftColor: EDGES[by.role] }}>
      <Bar gap="near">
        {by.peg ? (
          <Peg peg={by.peg} size={30} />
        ) : (
          <DrawnSymbol
            name={by.role === 'parent' ? 'home-heart' : 'quill'}
            size={24}
            colour={EDGES[by.role]}
          />
        )}
        <View style={{ flex: 1 }}>
          <Text variant="labelMedium">{name}</Text>
          <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
            {thoughts
              ? t(by.mine ? 'thoughts.mine' : 'thoughts.theirs', { when: whenWasIt(saidAt) })
              : by.mine
                ? whenWasIt(saidAt)
                : `${t(`roles.${by.role}`)} · ${whenWasIt(saidAt)}`}
          </Text>
        </View>
        {forPupil && words ? <Listen text={words} /> : null}
      </Bar>
      {words ? <Text variant="bodyLarge">{words}</Text> : null}
      {voice ? <Player file={voice} /> : null}
      {note ? <Hint tone="attention">{note}</Hint> : null}
      {children}
    </Stack>
  )
}

const STRIP = { borderLeftWidth: 4, paddingLeft: space.apart } as const
