import { router } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { timeOf } from '../kit/dates'
import { Row } from '../kit/form'
import { Symbol } from '../kit/Symbol'
import { colours, corners } from '../kit/theme'
import type { ClassDoor } from '@nibquill/contract'
import { accountsStrings as strings, useChangeDoor, useDoor } from '../accounts'

export const doorSentence = (door: ClassDoor): string =>
  door.open && door.until
    ? strings.doorOpen(door.reason === 'by-hand' ? strings.tonight : timeOf(new Date(door.until)))
    : strings.doorIsShut[door.reason]

/** On the class page: how the door stands, and the switch. */
export function DoorLine({ classId }: { classId: string }) {
  const door = useDoor(classId)
  const change = useChangeDoor(classId)
  if (!door.data) return null
  const { open, sessions } = door.data
  return (
    <View
      role="region"
      aria-label={strings.door}
      style={{
        backgroundColor: open ? colours.verdigrisTint : colours.desk,
        borderRadius: corners.button,
        padding: 12,
        paddingLeft: 16,
        gap: 10,
        flexDirection: 'row',
        flexWrap: 'wrap',
        alignItems: 'center',
      }}
    >
      <View
        style={{ flexDirection: 'row', alignItems: 'center', gap: 10, flexGrow: 1, flexShrink: 1 }}
      >
        <Symbol
          name={open ? 'door-open' : 'door-shut'}
          size={26}
          colour={open ? colours.verdigris : colours.inkSoft}
        />
        <Text variant="bodyMedium" style={{ flexShrink: 1 }}>
          {`${doorSentence(door.data)}. ${strings.desksOpen(sessions.length)}`}
        </Text>
      </View>
      <Row>
        <BigButton
          small
          tone="quiet"
          label={open ? strings.shutNow : strings.openNow}
          busy={change.isPending}
          onPress={() => change.mutate({ switch: open ? 'shut' : 'open' })}
        />
        <BigButton
          small
          tone="quiet"
          symbol="next"
          label={strings.door}
          onPress={() => router.push(`/class/door?classId=${classId}`)}
        />
      </Row>
    </View>
  )
}
