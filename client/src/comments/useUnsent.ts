import { useState } from 'react'
import { useSession } from '../accounts'

/** What somebody typed and has not sent, by who they are and what it is about; as long as the page lives. */
const unsent = new Map<string, string>()

/** Words that are still there when one comes back to them. @param about - What they are for. */
export function useUnsent(about: string) {
  const key = `${useSession().data?.person?.id ?? ''} ${about}`
  const [typed, setTyped] = useState(() => unsent.get(key) ?? '')
  return {
    typed,
    setTyped: (text: string) => {
      setTyped(text)
      unsent.set(key, text)
    },
    forget: () => {
      setTyped('')
      unsent.delete(key)
    },
  }
}
