import { useEffect, useRef } from 'react'

/**
 * While something lies over the page, Back closes it instead of leaving the page.
 * @param onBack - Closes it.
 */
export function useUntilBack(open: boolean, onBack: () => void): void {
  const close = useRef(onBack)
  close.current = onBack
  useEffect(() => {
    if (!open) return
    const mark = `over-${performance.now()}`
    window.history.pushState({ ...(window.history.state as object), mark }, '')
    const back = () => close.current()
    window.addEventListener('popstate', back)
    return () => {
      window.removeEventListener('popstate', back)
      // Closed otherwise: the entry made for it goes, unless one has gone on elsewhere.
      if ((window.history.state as { mark?: string } | null)?.mark === mark) window.history.back()
    }
  }, [open])
}
