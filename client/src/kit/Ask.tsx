import { useContext, type ReactNode } from 'react'
import { View } from 'react-native'
import { Dialog, Portal, Text } from 'react-native-paper'
import { ForPupil } from './forPupil'
import { BigButton } from './BigButton'
import { Listen } from './Listen'
import { strings } from './strings'
import { colours } from './theme'

/** A sheet laid over the screen until it is answered or put away. */
export function Overlay({
  visible,
  title,
  width = 520,
  onClose,
  children,
}: {
  visible: boolean
  title: string
  width?: number
  onClose: () => void
  children: ReactNode
}) {
  // What is laid over a screen stands outside of it.
  const forPupil = useContext(ForPupil)
  return (
    <Portal>
      <Dialog
        visible={visible}
        onDismiss={onClose}
        style={{
          backgroundColor: colours.sheet,
          maxWidth: width,
          width: '92%',
          alignSelf: 'center',
        }}
      >
        <View role="dialog" aria-modal aria-label={title}>
          <Dialog.Title>{title}</Dialog.Title>
          <ForPupil value={forPupil}>{children}</ForPupil>
        </View>
      </Dialog>
    </Portal>
  )
}

/** A question before something that matters. */
export function Ask({
  visible,
  title,
  children,
  yes,
  no = strings.cancel,
  tone = 'primary',
  onYes,
  onNo,
}: {
  visible: boolean
  title: string
  children?: ReactNode
  yes: string
  no?: string
  tone?: 'primary' | 'again' | 'good'
  onYes: () => void
  onNo: () => void
}) {
  const forPupil = useContext(ForPupil)
  return (
    <Overlay visible={visible} title={title} onClose={onNo}>
      <Dialog.Content>
        <View style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <View style={{ flex: 1 }}>
            {typeof children === 'string' ? <Text variant="bodyLarge">{children}</Text> : children}
          </View>
          {forPupil ? (
            <Listen text={`${title} ${typeof children === 'string' ? children : ''}`} />
          ) : null}
        </View>
      </Dialog.Content>
      <View style={{ padding: 20, paddingTop: 0, gap: 10, flexDirection: 'row', flexWrap: 'wrap' }}>
        <BigButton label={no} tone="quiet" onPress={onNo} grow />
        <BigButton label={yes} tone={tone} onPress={onYes} grow />
      </View>
    </Overlay>
  )
}
