import andika from '@fontsource/andika/files/andika-latin-400-normal.woff2'
import andikaExt from '@fontsource/andika/files/andika-latin-ext-400-normal.woff2'
import andikaBold from '@fontsource/andika/files/andika-latin-700-normal.woff2'
import andikaBoldExt from '@fontsource/andika/files/andika-latin-ext-700-normal.woff2'
import youngSerifExt from '@fontsource/young-serif/files/young-serif-latin-ext-400-normal.woff2'
import youngSerif from '@fontsource/young-serif/files/young-serif-latin-400-normal.woff2'
import { QueryClientProvider } from '@tanstack/react-query'
import { useFonts } from 'expo-font'
import { Slot } from 'expo-router'
import Head from 'expo-router/head'
import { PaperProvider } from 'react-native-paper'
import { SafeAreaProvider } from 'react-native-safe-area-context'
import { queryClient } from '../api/queryClient'
import { OutboxProvider } from '../outbox/OutboxContext'
import { offerFaces } from '../device/faces'
import { fetchSharedScriptLater } from '../device/sharedScript'
import { startOutbox } from '../startOutbox'
import { useOpening } from '../accounts/useOpening'
import { watchTaps } from '../kit/lastTap'
import { DrawnSymbol, type SymbolName } from '../kit/DrawnSymbol'
import { theme } from '../kit/theme'
import { ToastPlace } from '../kit/Toast'

export { Broken as ErrorBoundary } from '../broken/Broken'

/** The widget library asks for symbols by name; ours are drawn. */
const settings = {
  icon: ({ name, size, color }: { name: unknown; size: number; color?: string }) => (
    <DrawnSymbol name={name as SymbolName} size={size} colour={color} />
  ),
}

offerFaces({ AndikaExt: andikaExt, AndikaBoldExt: andikaBoldExt, YoungSerifExt: youngSerifExt })
fetchSharedScriptLater()
watchTaps()
const outbox = startOutbox(queryClient)

export default function Layout() {
  const [loaded, failed] = useFonts({
    Andika: andika,
    AndikaBold: andikaBold,
    YoungSerif: youngSerif,
  })
  const open = useOpening()
  if ((!loaded && !failed) || !open) return null
  return (
    <SafeAreaProvider>
      <QueryClientProvider client={queryClient}>
        <PaperProvider theme={theme} settings={settings}>
          <Head>
            <title>Nibquill</title>
          </Head>
          <OutboxProvider value={outbox}>
            <Slot />
          </OutboxProvider>
          <ToastPlace />
        </PaperProvider>
      </QueryClientProvider>
    </SafeAreaProvider>
  )
}
