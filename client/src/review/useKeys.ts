import { useEffect, useRef } from 'react'

/** Keys that press buttons; quiet while somebody writes or a question is open. */
export function useKeys(keys: Record<string, () => unknown>, active: boolean): void {
  const latest = useRef(keys)
  latest.current = keys
  useEffect(() => {
    if (!active) return
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement
      if (
        // Held down, a key does nothing twice.
        event.repeat ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        target.isContentEditable ||
        ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)
      )
        return
      const act = latest.current[event.key.toLowerCase()]
      if (!act) return
      event.preventDefault()
      act()
    }
    window.addEventListener('keydown', press)
    return () => window.removeEventListener('keydown', press)
  }, [active])
}
