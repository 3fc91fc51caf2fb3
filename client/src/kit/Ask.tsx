import { useContext, type ReactNode } from 'react'
import { View } from 'react-native'
import { Dialog, Text } from 'react-native-paper'
import { ForPupil } from './forPupil'
import { BigButton } from './BigButton'
import { Listen } from './Listen'
import { Overlay } from './Overlay'
import { space } from './theme'
import { t } from './words'
import { Bar } from './layout'

/** A question before something that matters. */
export function Ask({
  visible,
  title,
  children,
  yes,
  no = t('cancel'),
  tone = 'primary',
  onYes,
  onNo,
  onLeave = onNo,
}: {
  visible: boolean
  title: string
  children?: ReactNode
  yes: string
  no?: string
  tone?: 'primary' | 'again' | 'good'
  onYes: () => void
  onNo: () => void
  /** Put away unanswered, where that is something else than no. */
  onLeave?: () => void
}) {
  const forPupil = useContext(ForPupil)
  return (
    <Overlay visible={visible} title={title} onClose={onLeave}>
      <Dialog.Content>
        <Bar>
          <View style={{ flex: 1 }}>
            {typeof children === 'string' ? <Text variant="bodyLarge">{children}</Text> : children}
          </View>
          {forPupil ? (
            <Listen text={`${title} ${typeof children === 'string' ? children : ''}`} />
          ) : null}
        </Bar>
      </Dialog.Content>
      <Bar wrap align="stretch" style={{ padding: space.far, paddingTop: 0 }}>
        <BigButton label={no} tone="quiet" onPress={onNo} grow />
        <BigButton label={yes} tone={tone} onPress={onYes} grow />
      </Bar>
    </Overlay>
  )
}
