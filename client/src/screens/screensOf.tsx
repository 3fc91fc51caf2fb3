import { useEffect, useState, type ComponentType } from 'react'
import { Loading, ProblemNotice } from '../kit/Notice'
import { UnreachableError } from '../kit/problems'

type Screens = Record<string, ComponentType>

/**
 * The screens of one role, fetched at the first of them: what a pupil's tablet never shows it never
 * fetches.
 * @param load - Imports the module that names them.
 */
export function screensOf<Module extends Screens>(load: () => Promise<Module>) {
  let screens: Module | null = null
  let coming: Promise<Module> | null = null
  const fetchOnce = () =>
    (coming ??= load().then(
      (module) => (screens = module),
      (error: unknown) => {
        // Asked again, it is fetched again.
        coming = null
        throw error
      },
    ))
  return (name: keyof Module & string): ComponentType =>
    function RoleScreen() {
      const [here, setHere] = useState(screens)
      const [tries, setTries] = useState(0)
      const [failed, setFailed] = useState(false)
      useEffect(() => {
        if (here) return
        let gone = false
        setFailed(false)
        fetchOnce().then(
          (module) => gone || setHere(module),
          () => gone || setFailed(true),
        )
        return () => {
          gone = true
        }
      }, [here, tries])
      if (here) {
        const Screen = here[name] as ComponentType
        return <Screen />
      }
      return failed ? (
        <ProblemNotice
          error={new UnreachableError()}
          onRetry={() => setTries((count) => count + 1)}
        />
      ) : (
        <Loading />
      )
    }
}
