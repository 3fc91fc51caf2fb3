import { Loading, ProblemNotice } from './Notice'
import { isRefusal } from './problems'

/** Something asked of the school, as TanStack Query tells of it. */
type Asked = { data: unknown; error: unknown; isError: boolean; refetch: () => unknown }

/**
 * Whether there is something to show: what came last stays while the school cannot be reached, and
 * a form on it with it; what it refuses now is shown no more.
 */
export const isHere = <Q extends Asked>(
  asked: Q,
): asked is Q & { data: Exclude<Q['data'], undefined> } =>
  asked.data !== undefined && !isRefusal(asked.error)

/** In place of what is not here yet: its shape, or what went wrong and another try. */
export function NotYet({ of }: { of: Asked | readonly Asked[] }) {
  const missing = [of].flat().filter((asked) => !isHere(asked as Asked)) as Asked[]
  const failed = missing.find((asked) => asked.isError)
  if (!failed) return <Loading />
  return (
    <ProblemNotice
      error={failed.error}
      onRetry={() => {
        for (const asked of missing) if (asked.isError) void asked.refetch()
      }}
    />
  )
}
