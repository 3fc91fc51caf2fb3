import { createElement, useEffect, useState, type FunctionComponent, type ReactNode } from 'react'
import { ProblemNotice } from './Notice'
import { UnreachableError } from './problems'

type Components = Record<string, (props: never) => ReactNode>
type PropsOf<Component> = Component extends () => ReactNode
  ? object
  : Component extends (props: infer Props extends object) => ReactNode
    ? Props
    : never

/**
 * Components of a module that is fetched when the first of them is shown: what a tablet never shows
 * it never fetches.
 * @param load - Imports the module; asked again after it could not be reached.
 * @param meanwhile - Stands in their place.
 * @returns a component by its name in the module
 */
export function laterFrom<Module extends Components>(
  load: () => Promise<Module>,
  meanwhile: ReactNode,
) {
  let fetched: Module | null = null
  let coming: Promise<Module> | null = null
  const fetchOnce = () =>
    (coming ??= load().then(
      (module) => (fetched = module),
      (error: unknown) => {
        coming = null
        throw error
      },
    ))
  return <Name extends keyof Module & string>(
    name: Name,
  ): FunctionComponent<PropsOf<Module[Name]>> =>
    function Later(props) {
      const [here, setHere] = useState(fetched)
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
      if (here) return createElement(here[name] as FunctionComponent<object>, props)
      if (!failed) return meanwhile
      return (
        <ProblemNotice
          error={new UnreachableError()}
          onRetry={() => setTries((count) => count + 1)}
        />
      )
    }
}
