import { useEffect, useState } from 'react'
import { t } from './words'

/**
 * Why a picture is not shown: a browser only says that it failed. One that is far away comes as soon
 * as it can be fetched, and only one that is here and cannot be read is called damaged.
 * @returns `look`, to be called when the picture failed; `words` to be shown in its place
 */
export function usePictureTrouble(address: string): { words: string | null; look: () => void } {
  const [trouble, setTrouble] = useState<'away' | 'damaged' | null>(null)
  useEffect(() => setTrouble(null), [address])
  useEffect(() => {
    if (trouble !== 'away') return
    const again = () => setTrouble(null)
    window.addEventListener('online', again)
    const timer = setInterval(
      () => void isThere(address).then((there) => there && again()),
      RETRY_MS,
    )
    return () => {
      window.removeEventListener('online', again)
      clearInterval(timer)
    }
  }, [trouble, address])
  const look = () => void isThere(address).then((there) => setTrouble(there ? 'damaged' : 'away'))
  return {
    words: trouble === 'damaged' ? t('damaged') : trouble === 'away' ? t('farAway') : null,
    look,
  }
}

const RETRY_MS = 5000

const isThere = (address: string): Promise<boolean> =>
  fetch(address, { method: 'HEAD', credentials: 'same-origin' }).then(
    ({ ok }) => ok,
    () => false,
  )
