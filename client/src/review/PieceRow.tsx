import type { PupilName } from '@nibquill/contract'
import { router } from 'expo-router'
import type { ReactNode } from 'react'
import { View } from 'react-native'
import { Bar } from '../kit/layout'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { colours, space, targets } from '../kit/theme'

/** A piece in a teacher's list: whose it is and what is said of it, to be opened; beside it what can be done. */
export const PieceRow = ({
  pieceId,
  pupil,
  aside,
  children,
}: {
  pieceId: string
  pupil: PupilName
  aside: ReactNode
  children: ReactNode
}) => (
  <Bar role="listitem" gap="apart" style={LINE}>
    <Press
      onPress={() => router.push(`/tray/${pieceId}`)}
      style={{ flex: 1, flexDirection: 'row', alignItems: 'center', gap: space.apart }}
    >
      <Peg peg={pupil.peg} size={40} />
      <View style={{ flex: 1 }}>{children}</View>
    </Press>
    {aside}
  </Bar>
)
const LINE = {
  ...{ minHeight: targets.adult + 20, paddingVertical: space.near },
  ...{ borderBottomWidth: 1, borderBottomColor: colours.rule },
} as const
