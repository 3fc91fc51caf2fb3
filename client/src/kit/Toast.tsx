import { useRef, useSyncExternalStore } from 'react'
import { Snackbar, Text } from 'react-native-paper'
import { colours } from './theme'
import { create } from './toastStore'

const store = create()
/** Says something was done, with a way to undo it for a while. */
export const toast = store.show
/** Takes away what is shown: it may name somebody who has left. */
export const clearToast = store.hide

/**
 * At the head, since the main action of a screen stands at its foot; what lies below its words can
 * be tapped.
 */
export function ToastHost() {
  const now = useSyncExternalStore(store.subscribe, store.get, store.get)
  // What comes next has a time of its own.
  const number = useRef(0)
  if (now) number.current = now.number
  return (
    <Snackbar
      key={number.current}
      visible={now !== null}
      onDismiss={store.hide}
      duration={7000}
      action={now?.undo ? { label: now.undoLabel, onPress: now.undo } : undefined}
      theme={{ colors: { inversePrimary: colours.ochreTint } }}
      wrapperStyle={{ bottom: 'auto', top: 0 }}
      style={{ maxWidth: 480, alignSelf: 'center' }}
      contentStyle={{ pointerEvents: 'none' }}
    >
      <Text variant="bodyMedium" style={{ color: colours.paper }}>
        {now?.text}
      </Text>
    </Snackbar>
  )
}
