import type { PupilLine } from '@nibquill/contract'
import {
  createColumnHelper,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type SortingState,
  type Table,
} from '@tanstack/react-table'
import { useMemo, useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { whenWasIt } from '../kit/dates'
import { Field } from '../kit/Field'
import { Toggle } from '../kit/choices'
import { Hint, Select } from '../kit/form'
import { useWidth } from '../kit/layout'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { Symbol } from '../kit/Symbol'
import { colours, corners, shadow, stateColours, targets } from '../kit/theme'
import { schoolStrings as strings } from '../school'

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
      nameOf(row.original).toLowerCase().includes(text.trim().toLowerCase()),
    getRowId: ({ id }) => id,
  })
  const rows = table.getRowModel().rows.map(({ original }) => original)
  return (
    <View style={{ gap: 12 }}>
      {/* The switch stands beside the box to type in, not beside its label. */}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'flex-end', gap: 10 }}>
        <View style={{ flexGrow: 1, minWidth: 200, maxWidth: 340 }}>
          <Field label={strings.show} value={wanted} onChangeText={setWanted} />
        </View>
        <View style={{ minHeight: 56, justifyContent: 'center' }}>
          <Toggle label={strings.onlyToDo} value={onlyToDo} onChange={setOnlyToDo} />
        </View>
        {tablet ? null : <SortChoice table={table} />}
      </View>
      <View
        role={tablet ? 'table' : 'list'}
        aria-label={strings.pupils(rows.length)}
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
      {rows.length === 0 ? <Hint>{strings.nobodyFound}</Hint> : null}
    </View>
  )
}

function SortChoice({ table }: { table: Table<PupilLine> }) {
  const ids: ColumnId[] = ['name', 'toDo', ...COUNTS, 'seen']
  const now = table.getState().sorting[0]?.id ?? 'name'
  return (
    <Select
      hidden
      label={strings.sortBy('')}
      value={now as ColumnId}
      options={ids.map((id) => ({
        value: id,
        label: strings.sortBy(strings.columns[id].toLowerCase()),
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
    <View
      role="row"
      style={{
        flexDirection: 'row',
        padding: 8,
        borderBottomWidth: 1,
        borderBottomColor: colours.rule,
        gap: 8,
      }}
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
                  ? strings.sorted(strings.columns[id], sorted === 'desc')
                  : strings.columns[id]
              }
              onPress={() => header.column.toggleSorting()}
              style={{
                flexDirection: 'row',
                gap: 2,
                alignItems: 'center',
                justifyContent: id === 'name' ? 'flex-start' : 'center',
                minHeight: 32,
              }}
            >
              <Text
                variant={sorted ? 'labelMedium' : 'bodySmall'}
                style={{ color: colours.inkSoft }}
              >
                {strings.columns[id]}
              </Text>
              {sorted ? (
                <Symbol
                  name={sorted === 'asc' ? 'up' : 'down-arrow'}
                  size={15}
                  colour={colours.inkSoft}
                />
              ) : null}
            </Press>
          </View>
        )
      })}
    </View>
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
  const name = nameOf(pupil)
  const who = (
    <Press
      role="link"
      label={name}
      onPress={onOpen}
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        gap: 12,
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
  const cells = [
    { id: 'toDo' as const, count: pupil.toDo, tint: colours.ochreTint, text: colours.ochreText },
    ...COUNTS.map((id) => ({
      id,
      count: pupil.counts[id],
      tint: stateColours[id].tint,
      text: stateColours[id].text,
    })),
  ]
  if (!wide) {
    return (
      <View
        role="listitem"
        style={{ padding: 12, borderBottomWidth: 1, borderBottomColor: colours.rule, gap: 4 }}
      >
        {who}
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 12, paddingLeft: 52 }}>
          {cells
            .filter(({ count }) => count > 0)
            .map(({ id, count, text }) => (
              <Text
                key={id}
                variant="bodySmall"
                style={{ color: text }}
              >{`${count} ${strings.columns[id].toLowerCase()}`}</Text>
            ))}
        </View>
      </View>
    )
  }
  return (
    <View
      role="row"
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        paddingHorizontal: 12,
        paddingVertical: 5,
        borderBottomWidth: 1,
        borderBottomColor: colours.rule,
        gap: 8,
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
          {pupil.lastSeenAt ? whenWasIt(pupil.lastSeenAt) : strings.never}
        </Text>
      </View>
    </View>
  )
}
