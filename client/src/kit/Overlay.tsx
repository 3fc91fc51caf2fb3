import { createFocusTrap } from 'focus-trap'
import { useContext, useLayoutEffect, useRef, useState, type ReactNode } from 'react'
import { View } from 'react-native'
import { Dialog, Portal } from 'react-native-paper'
import { ForPupil } from './forPupil'
import { useJustAppeared } from './lastTap'
import { colours, corners, shadow } from './theme'

type Props = {
  visible: boolean
  title: string
  width?: number
  onClose: () => void
  children: ReactNode
}

/**
 * A sheet laid over the screen until it is answered or put away, by Escape too. It takes the focus,
 * keeps it, and gives it back.
 */
export function Overlay({ visible, ...sheet }: Props) {
  // What is laid over a screen stands outside of it.
  const forPupil = useContext(ForPupil)
  if (!visible) return null
  return (
    <Portal>
      <ForPupil value={forPupil}>
        <LaidOver {...sheet} />
      </ForPupil>
    </Portal>
  )
}

function LaidOver({ title, width = 520, onClose, children }: Omit<Props, 'visible'>) {
  const sheet = useFocusHeld(onClose)
  const scrim = useRef<HTMLDivElement>(null)
  const early = useJustAppeared(scrim)
  return (
    <View
      style={{
        ...{ position: 'absolute', inset: 0, padding: '4%' },
        ...{ alignItems: 'center', justifyContent: 'center' },
      }}
    >
      {/* Nothing to hear of it: Escape and what it asks are there. */}
      <div ref={scrim} aria-hidden onClick={() => early || onClose()} style={SCRIM} />
      <View
        ref={sheet}
        role="dialog"
        aria-modal
        aria-label={title}
        tabIndex={-1}
        style={{
          ...{ backgroundColor: colours.sheet, borderRadius: corners.button },
          ...{ width: '100%', maxWidth: width, maxHeight: '100%', overflow: 'auto' as 'visible' },
          ...shadow,
        }}
      >
        <Dialog.Title>{title}</Dialog.Title>
        {children}
      </View>
    </View>
  )
}

const SCRIM = { position: 'absolute', inset: 0, background: 'rgba(43, 33, 24, 0.55)' } as const

/** What is laid over the screen, and over what is laid over it. */
const layers: symbol[] = []

const holdsFocus = (element: HTMLElement) => element.contains(document.activeElement)

/** Holds the focus inside while it is there. @returns what the element is to be told */
export function useFocusHeld(onClose: () => void) {
  const element = useRef<View>(null)
  const close = useRef(onClose)
  close.current = onClose
  // Before anything inside takes the focus to itself.
  const [opener] = useState(() => document.activeElement)
  useLayoutEffect(() => {
    const inside = element.current as unknown as HTMLElement
    // A field may have taken the focus already.
    let focused = holdsFocus(inside) ? (document.activeElement as HTMLElement) : inside
    const remember = ({ target }: FocusEvent) => (focused = target as HTMLElement)
    inside.addEventListener('focusin', remember)
    // What comes onto the screen below while this one still goes away.
    let wanted: EventTarget | null = null
    const refused = ({ target }: FocusEvent) => {
      if (target instanceof Node && !inside.contains(target)) wanted = target
    }
    window.addEventListener('focusin', refused, { capture: true })
    const trap = createFocusTrap(inside, {
      // Also what it goes back to, should something outside take the focus.
      initialFocus: () => focused,
      fallbackFocus: inside,
      clickOutsideDeactivates: false,
      allowOutsideClick: true,
      escapeDeactivates: false,
      // Both at once, never by a timer: a key that follows goes where one looks.
      delayInitialFocus: false,
      returnFocusOnDeactivate: false,
    })
    trap.activate()
    // Before anything below it hears of the key, and only the uppermost of several.
    const layer = Symbol('layer')
    layers.push(layer)
    const escape = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || layers.at(-1) !== layer) return
      event.stopPropagation()
      close.current()
    }
    window.addEventListener('keydown', escape, { capture: true })
    return () => {
      window.removeEventListener('keydown', escape, { capture: true })
      layers.splice(layers.indexOf(layer), 1)
      trap.deactivate()
      inside.removeEventListener('focusin', remember)
      window.removeEventListener('focusin', refused, { capture: true })
      // Once all of it is gone; what has taken the focus by then keeps it.
      queueMicrotask(() => {
        const lost = document.activeElement === document.body || holdsFocus(inside)
        const there = [opener, wanted].find((one) => one instanceof HTMLElement && one.isConnected)
        if (lost) (there as HTMLElement | undefined)?.focus({ preventScroll: true })
      })
    }
  }, [opener])
  return element
}
