import { create } from './toastStore'
import { Snackbar } from 'react-native-paper'
import { useSyncExternalStore } from 'react'
import { colours } from './theme'

const store = create()
/** Says something was done, with a way to undo it for a while. */
export const toast = store.show
/** Takes away what is shown: it may name somebody who has left. */
export const clearToast = store.hide

export function ToastHost() {
  const now = useSyncExternalStore(store.subscribe, store.get, store.get)
  return (
    <Snackbar
      visible={now !== null}
      onDismiss={store.hide}
      duration={7000}
      action={now?.undo ? { label: now.undoLabel, onPress: now.undo } : undefined}
      theme={{ colors: { inversePrimary: colours.ochreTint } }}
      style={{ maxWidth: 480, alignSelf: 'center' }}
    >
      {now?.text ?? ''}
    </Snackbar>
  )
}
