import { useContext, useEffect } from 'react'
import { ForPupil } from './forPupil'

const NAME = 'Nibquill'

/**
 * What the browser calls the page. A pupil's pages have no name of their own: it would stay in the
 * history of a tablet that others use.
 */
export function useTitle(title: string): void {
  const forPupil = useContext(ForPupil)
  useEffect(() => {
    if (forPupil || !title) return
    document.title = `${title} – ${NAME}`
    return () => {
      document.title = NAME
    }
  }, [forPupil, title])
}
