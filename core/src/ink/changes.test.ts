import fc from 'fast-check'
import { drawOn, undoOf, type InkChange } from './changes.ts'
import { emptySheet, newInk, PAPERS, type Ruled } from './document.ts'

const thing = (id: string, x = 0): Ruled => ({
  ...{ kind: 'ruled', id, shape: 'line', from: { x, y: 0 }, to: { x: 100, y: 100 } },
  pen: { ink: ['sea'], water: 0, edge: null, width: 90 },
})
const put = (...ids: string[]): InkChange => ({
  ...{ kind: 'put', sheetId: 's', below: null },
  things: ids.map((id) => thing(id)),
})
const idsOf = (ink: ReturnType<typeof newInk>) => ink.sheets[0]!.things.map(({ id }) => id)

test('what is put lies on top, or below what it names; where that is gone, on top', () => {
  const ink = drawOn(newInk('s'), [put('a', 'b', 'c')])
  const below = (id: string): InkChange => ({
    ...{ kind: 'put', sheetId: 's', things: [thing('d')], below: id },
  })
  expect(idsOf(drawOn(ink, [below('b')]))).toEqual(['a', 'd', 'b', 'c'])
  expect(idsOf(drawOn(ink, [below('gone')]))).toEqual(['a', 'b', 'c', 'd'])
  // Put again, it moves.
  expect(idsOf(drawOn(ink, [put('a')]))).toEqual(['b', 'c', 'a'])
})

test('what one tablet takes off stays off, whatever another does to it', () => {
  const ink = drawOn(newInk('s'), [put('a', 'b'), { kind: 'take', sheetId: 's', ids: ['a'] }])
  expect(idsOf(drawOn(ink, [{ kind: 'set', sheetId: 's', things: [thing('a', 50)] }]))).toEqual([
    'b',
  ])
})

test('the last sheet stays, and what names a sheet that is gone changes nothing', () => {
  const ink = newInk('s')
  expect(drawOn(ink, [{ kind: 'take-sheet', sheetId: 's' }])).toEqual(ink)
  expect(drawOn(ink, [{ ...put('a'), sheetId: 'gone' } as InkChange])).toEqual(ink)
})

const someId = fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f')
const someSheet = fc.constantFrom('s', 'r', 'q')
const someChange: fc.Arbitrary<InkChange> = fc.oneof(
  fc.record({
    kind: fc.constant('put' as const),
    sheetId: someSheet,
    things: fc.uniqueArray(
      fc.tuple(someId, fc.nat(99)).map(([id, x]) => thing(id, x)),
      {
        ...{ selector: ({ id }) => id, maxLength: 3 },
      },
    ),
    below: fc.option(someId),
  }),
  fc.record({
    ...{ kind: fc.constant('set' as const), sheetId: someSheet },
    things: fc.tuple(someId, fc.nat(99)).map(([id, x]) => [thing(id, x)]),
  }),
  fc.record({
    ...{ kind: fc.constant('take' as const), sheetId: someSheet },
    ids: fc.uniqueArray(someId),
  }),
  fc.record({
    ...{ kind: fc.constant('paper' as const), sheetId: someSheet },
    paper: fc.constantFrom(...PAPERS),
  }),
  fc.record({
    kind: fc.constant('put-sheet' as const),
    sheet: someSheet.map((id) => emptySheet(id)),
    below: fc.option(someSheet),
  }),
  fc.record({ kind: fc.constant('take-sheet' as const), sheetId: someSheet }),
)
const someChanges = fc.array(someChange, { maxLength: 12 })

test('whatever was done can be undone, and done again', () => {
  fc.assert(
    fc.property(someChanges, someChanges, (before, changes) => {
      const ink = drawOn(newInk('s'), before)
      const after = drawOn(ink, changes)
      const undo = undoOf(ink, changes)
      expect(drawOn(after, undo)).toEqual(ink)
      expect(drawOn(ink, undoOf(after, undo))).toEqual(after)
    }),
  )
})

test('a batch that arrives twice changes what it changed once', () => {
  const once: fc.Arbitrary<InkChange[]> = fc.uniqueArray(someId).map((ids) => [put(...ids)])
  fc.assert(
    fc.property(once, (changes) => {
      const ink = drawOn(newInk('s'), changes)
      expect(drawOn(ink, changes)).toEqual(ink)
    }),
  )
})
