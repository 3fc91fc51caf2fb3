import { useEffect, useState, useSyncExternalStore } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useTargetPx } from './forPupil'
import { Press } from './Press'
import { colours, corners, space } from './theme'
import { create } from './toastStore'
import { t } from './words'

const store = create()
/** Says something was done, with a way to undo it for a while. */
export const toast = store.show
/** Takes away what is shown: it may name somebody who has left. */
export const clearToast = store.hide

/**
 * Where a screen says what was done: above what is fixed at its foot, in a line of its own, so that
 * it covers nothing and nothing moves under a finger.
 */
export function ToastPlace() {
  const [place] = useState(() => Symbol('place'))
  useEffect(() => store.addPlace(place), [place])
  const shown = useSyncExternalStore(store.subscribe, store.placeShown, store.placeShown)
  return (
    <View role="status" style={{ flexShrink: 0 }}>
      {shown === place ? <ToastLine /> : null}
    </View>
  )
}

function ToastLine() {
  const now = useSyncExternalStore(store.subscribe, store.get, store.get)
  const minHeight = useTargetPx()
  if (!now) return null
  const { number, text, undo, undoLabel } = now
  return (
    <View
      key={number}
      style={{
        ...{ flexDirection: 'row', alignItems: 'center', gap: space.clear },
        ...{ minHeight, alignSelf: 'center', maxWidth: 620, width: '100%' },
        ...{ backgroundColor: colours.ink, borderRadius: corners.sheet },
        paddingHorizontal: space.clear,
      }}
    >
      <Text variant="bodyMedium" style={{ color: colours.paper, flex: 1, paddingVertical: 10 }}>
        {text}
      </Text>
      {undo ? (
        <Press
          does={String(number)}
          onPress={() => {
            store.hide()
            undo()
          }}
          style={{ minHeight, justifyContent: 'center', paddingHorizontal: space.apart }}
        >
          <Text variant="labelLarge" style={{ color: colours.ochreTint }}>
            {undoLabel || t('undo')}
          </Text>
        </Press>
      ) : null}
    </View>
  )
}
