import { router } from 'expo-router'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { timeOf } from '../kit/dates'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, space } from '../kit/theme'
import type { ClassDoor } from '@nibquill/contract'
import { useChangeDoor } from '../accounts'
import { t } from './words'
import { Bar } from '../kit/layout'

export const doorSentence = (door: ClassDoor): string =>
  door.open && door.until
    ? t('doorOpen', {
        until: door.reason === 'by-hand' ? t('tonight') : timeOf(new Date(door.until)),
      })
    : t(`doorIsShut.${door.reason}`)

/** On the class page: how the door stands, and the switch. */
export function DoorLine({ classId, door }: { classId: string; door: ClassDoor }) {
  const change = useChangeDoor(classId)
  const { open, sessions } = door
  return (
    <Bar
      role="region"
      aria-label={t('door')}
      wrap
      style={{
        backgroundColor: open ? colours.verdigrisTint : colours.desk,
        borderRadius: corners.button,
        padding: space.apart,
        paddingLeft: space.clear,
      }}
    >
      <Bar style={{ flexGrow: 1, flexShrink: 1 }}>
        <DrawnSymbol
          name={open ? 'door-open' : 'door-shut'}
          size={26}
          colour={open ? colours.verdigris : colours.inkSoft}
        />
        <Text variant="bodyMedium" style={{ flexShrink: 1 }}>
          {`${doorSentence(door)}. ${t('desksOpen', { count: sessions.length })}`}
        </Text>
      </Bar>
      <Bar wrap>
        <BigButton
          small
          tone="quiet"
          label={open ? t('shutNow') : t('openNow')}
          busy={change.isPending}
          onPress={() => change.mutate({ switch: open ? 'shut' : 'open' })}
        />
        <BigButton
          small
          tone="quiet"
          symbol="next"
          label={t('door')}
          onPress={() => router.push(`/class/door?classId=${classId}`)}
        />
      </Bar>
    </Bar>
  )
}
