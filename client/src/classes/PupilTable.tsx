import type { PupilLine } from '@nibquill/contract'
import { foldName } from '@nibquill/core'
import {
  createColumnHelper,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type SortingState,
  type Table,
} from '@tanstack/react-table'
import { useMemo, useState, type ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useWhen } from '../kit/useWhen'
import { Field } from '../kit/Field'
import { Toggle } from '../kit/choices'
import { Hint, Select } from '../kit/form'
import { Bar, Stack, useWidth } from '../kit/layout'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, shadow, space, stateColours, targets } from '../kit/theme'
import { t } from './words'
import { schoolWords } from '../school'

const COUNTS = ['draft', 'submitted', 'returned', 'approved'] as const
type ColumnId = 'name' | 'toDo' | (typeof COUNTS)[number] | 'seen'
const nameOf = (pupil: PupilLine): string => `${pupil.firstName} ${pupil.lastName}`.trim()

const column = createColumnHelper<PupilLine>()
const COLUMNS = [
  column.accessor(nameOf, { id: 'name', sortingFn: 'alphanumeric' }),
  column.accessor('toDo', { id: 'toDo' }),
  ...COUNTS.map((count) => column.accessor((pupil) => pupil.counts[count], { id: count })),
  column.accessor((pupil) => pupil.lastSeenAt ?? '', { id: 'seen' }),
]

/**
 * Pupils with where their work stands: a table that sorts and filters on wide screens, a list on
 * phones.
 */
export function PupilTable({
  pupils,
  onOpen,
}: {
  pupils: PupilLine[]
  onOpen: (id: string) => void
}) {
  const { tablet } = useWidth()
  const [sorting, setSorting] = useState<SortingState>([{ id: 'name', desc: false }])
  const [wanted, setWanted] = useState('')
  const [onlyToDo, setOnlyToDo] = useState(false)
  const shown = useMemo(
    () => (onlyToDo ? pupils.filter(({ toDo, counts }) => toDo + counts.returned > 0) : pupils),
    [pupils, onlyToDo],
  )
  const table = useReactTable({
    data: shown,
    columns: COLUMNS,
    state: { sorting, globalFilter: wanted },
    onSortingChange: setSorting,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    globalFilterFn: (row, _column, text: string) =>
      foldName(nameOf(row.original)).includes(foldName(text)),
    getRowId: ({ id }) => id,
  })
  const rows = table.getRowModel().rows.map(({ original }) => original)
  return (
    <Stack>
      {/* The switch stands beside the box to type in, not beside its label. */}
      <Bar wrap align="flex-end">
        <View style={{ flexGrow: 1, minWidth: 200, maxWidth: 340 }}>
          <Field label={t('show')} value={wanted} onChangeText={setWanted} />
        </View>
        <View style={{ minHeight: 56, justifyContent: 'center', maxWidth: '100%' }}>
          <Toggle label={t('onlyToDo')} value={onlyToDo} onChange={setOnlyToDo} />
        </View>
        {tablet ? null : <SortChoice table={table} />}
      </Bar>
      <View
        role={tablet ? 'table' : 'list'}
        aria-label={t('pupils', { count: rows.length })}
        style={[
          { backgroundColor: colours.sheet, borderRadius: corners.button, overflow: 'hidden' },
          shadow,
        ]}
      >
        {tablet ? <TableHead table={table} /> : null}
        {rows.map((pupil) => (
          <PupilRow key={pupil.id} pupil={pupil} wide={tablet} onOpen={() => onOpen(pupil.id)} />
        ))}
      </View>
      {rows.length === 0 ? <Hint>{t('nobodyFound')}</Hint> : null}
    </Stack>
  )
}

function SortChoice({ table }: { table: Table<PupilLine> }) {
  const ids: ColumnId[] = ['name', 'toDo', ...COUNTS, 'seen']
  const now = table.getState().sorting[0]?.id ?? 'name'
  return (
    <Select
      hidden
      label={t('sortBy', { column: '' })}
      value={now as ColumnId}
      options={ids.map((id) => ({
        value: id,
        label: t('sortBy', { column: t(`columns.${id}`).toLowerCase() }),
      }))}
      onChange={(id) => table.setSorting([{ id, desc: id !== 'name' }])}
    />
  )
}

const FLEX: Record<ColumnId, number> = {
  name: 3,
  toDo: 1,
  draft: 1.2,
  submitted: 1.2,
  returned: 1.2,
  approved: 1.2,
  seen: 1.6,
}

function TableHead({ table }: { table: Table<PupilLine> }) {
  return (
    <Bar
      role="row"
      align="stretch"
      style={{ padding: space.near, borderBottomWidth: 1, borderBottomColor: colours.rule }}
    >
      {table.getFlatHeaders().map((header) => {
        const id = header.column.id as ColumnId
        const sorted = header.column.getIsSorted()
        return (
          <View
            key={id}
            role="columnheader"
            aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
            style={{ flex: FLEX[id] }}
          >
            <Press
              label={
                sorted
                  ? t('sorted', {
                      column: t(`columns.${id}`),
                      order: sorted === 'desc' ? 'down' : 'up',
                    })
                  : t(`columns.${id}`)
              }
              onPress={() => header.column.toggleSorting()}
              style={{
                flexDirection: 'row',
                gap: space.hair,
                alignItems: 'center',
                justifyContent: id === 'name' ? 'flex-start' : 'center',
                minHeight: 32,
              }}
            >
              <Text
                variant={sorted ? 'labelMedium' : 'bodySmall'}
                style={{ color: colours.inkSoft }}
              >
                {t(`columns.${id}`)}
              </Text>
              {sorted ? (
                <DrawnSymbol
                  name={sorted === 'asc' ? 'up' : 'down-arrow'}
                  size={15}
                  colour={colours.inkSoft}
                />
              ) : null}
            </Press>
          </View>
        )
      })}
    </Bar>
  )
}

function PupilRow({
  pupil,
  wide,
  onOpen,
}: {
  pupil: PupilLine
  wide: boolean
  onOpen: () => void
}) {
  const who = <Who pupil={pupil} onOpen={onOpen} />
  const cells = cellsOf(pupil)
  return wide ? (
    <WideRow pupil={pupil} who={who} cells={cells} />
  ) : (
    <Stack
      role="listitem"
      gap="tight"
      style={{ padding: space.apart, borderBottomWidth: 1, borderBottomColor: colours.rule }}
    >
      {who}
      <Bar wrap align="stretch" gap="none" style={{ columnGap: 12, paddingLeft: 52 }}>
        {cells
          .filter(({ count }) => count > 0)
          .map(({ id, count, text }) => (
            <Text
              key={id}
              variant="bodySmall"
              style={{ color: text }}
            >{`${count} ${t(`columns.${id}`).toLowerCase()}`}</Text>
          ))}
      </Bar>
    </Stack>
  )
}

function Who({ pupil, onOpen }: { pupil: PupilLine; onOpen: () => void }) {
  const name = nameOf(pupil)
  return (
    <Press
      role="link"
      label={name}
      onPress={onOpen}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: space.apart,
        minHeight: targets.adult,
        flex: 1,
      }}
    >
      <Peg peg={pupil.peg} size={40} />
      <Text variant="titleSmall" style={{ flex: 1 }}>
        {name}
      </Text>
    </Press>
  )
}

type Cell = { id: 'toDo' | (typeof COUNTS)[number]; count: number; tint: string; text: string }
const cellsOf = (pupil: PupilLine): Cell[] => [
  { id: 'toDo', count: pupil.toDo, tint: colours.ochreTint, text: colours.ochreText },
  ...COUNTS.map((id) => ({
    id,
    count: pupil.counts[id],
    tint: stateColours[id].tint,
    text: stateColours[id].text,
  })),
]

function WideRow({ pupil, who, cells }: { pupil: PupilLine; who: ReactNode; cells: Cell[] }) {
  const { whenWasIt } = useWhen()
  return (
    <Bar
      role="row"
      style={{
        paddingHorizontal: space.apart,
        paddingVertical: 5,
        borderBottomWidth: 1,
        borderBottomColor: colours.rule,
      }}
    >
      <View role="cell" style={{ flex: FLEX.name }}>
        {who}
      </View>
      {cells.map(({ id, count, tint, text }) => (
        <View key={id} role="cell" style={{ flex: FLEX[id], alignItems: 'center' }}>
          <View
            style={{
              minWidth: 34,
              borderRadius: 17,
              paddingVertical: 3,
              alignItems: 'center',
              backgroundColor: count ? tint : 'transparent',
            }}
          >
            <Text variant="bodyMedium" style={{ color: count ? text : colours.inkSoft }}>
              {count || '–'}
            </Text>
          </View>
        </View>
      ))}
      <View role="cell" style={{ flex: FLEX.seen }}>
        <Text variant="bodySmall" style={{ color: colours.inkSoft, textAlign: 'center' }}>
          {pupil.lastSeenAt ? whenWasIt(pupil.lastSeenAt) : schoolWords('never')}
        </Text>
      </View>
    </Bar>
  )
}
