import { Fragment, type ReactNode } from 'react'
import { Split, Stack } from '../kit/layout'
import { splitInTwo } from './splitInTwo'

/** A part of the desk, and about how high it is. */
export type Area = { name: string; heightPx: number; area: ReactNode }

/** Parts of the desk one under the other; where there is room in two columns of about one height. */
export function Columns({ beside, areas }: { beside: boolean; areas: readonly Area[] }) {
  const at = splitInTwo(areas.map(({ heightPx }) => heightPx))
  const columns = beside && at < areas.length ? [areas.slice(0, at), areas.slice(at)] : [areas]
  return (
    <Split beside={columns.length > 1} gap="off" style={{ alignItems: 'stretch' }}>
      {columns.map((column, number) => (
        <Stack
          key={number}
          gap="far"
          style={columns.length > 1 ? { flex: 1, minWidth: 0 } : { width: '100%' }}
        >
          {column.map(({ name, area }) => (
            <Fragment key={name}>{area}</Fragment>
          ))}
        </Stack>
      ))}
    </Split>
  )
}
