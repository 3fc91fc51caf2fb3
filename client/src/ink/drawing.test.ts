import { drawOn, type InkChange } from '@nibquill/core/ink/changes'
import { emptySheet, newInk, type Ruled } from '@nibquill/core/ink/document'
import { Drawing } from './drawing'

const thing = (id: string): Ruled => ({
  ...{ kind: 'ruled', id, shape: 'line', from: { x: 0, y: 0 }, to: { x: 100, y: 100 } },
  pen: { ink: ['sea'], water: 0, edge: null, width: 90 },
})
const put = (id: string, sheetId = 's'): InkChange => ({
  ...{ kind: 'put', sheetId, things: [thing(id)], below: null },
})
function open() {
  const kept: InkChange[] = []
  const begun = newInk('s')
  const drawing = new Drawing(begun, (changes) => kept.push(...changes))
  return { kept, begun, drawing, ids: () => drawing.sheet.things.map(({ id }) => id) }
}

test('what is undone can be done again, until something else is done', () => {
  const { drawing, ids } = open()
  drawing.act([put('a')])
  drawing.act([put('b')])
  drawing.undo()
  expect(ids()).toEqual(['a'])
  drawing.redo()
  expect(ids()).toEqual(['a', 'b'])
  drawing.undo()
  drawing.act([put('c')])
  expect(ids()).toEqual(['a', 'c'])
  expect(drawing.getSnapshot()).toMatchObject({ canUndo: true, canRedo: false })
})
test('everything is handed on as it was done, undoing too: the school comes to the same', () => {
  const { drawing, kept, begun } = open()
  drawing.act([put('a'), put('b')])
  drawing.act([{ kind: 'take', sheetId: 's', ids: ['a'] }])
  drawing.undo()
  drawing.act([{ kind: 'paper', sheetId: 's', paper: 'squared' }])
  drawing.undo()
  drawing.redo()
  expect(drawOn(begun, kept)).toEqual(drawing.getSnapshot().ink)
})
test('nothing done is no step', () => {
  const { drawing, kept } = open()
  drawing.act([])
  drawing.undo()
  drawing.redo()
  expect([kept, drawing.getSnapshot().canUndo]).toEqual([[], false])
})
test('undoing lays on top the sheet it happened on', () => {
  const { drawing } = open()
  drawing.act([{ kind: 'put-sheet', sheet: emptySheet('r'), below: null }])
  drawing.act([put('a')])
  drawing.turnTo('r')
  drawing.undo()
  expect(drawing.getSnapshot()).toMatchObject({ at: 0, canRedo: true })
})
test('a sheet that is taken out leaves another on top', () => {
  const { drawing } = open()
  drawing.act([{ kind: 'put-sheet', sheet: emptySheet('r'), below: null }])
  drawing.turnTo('r')
  drawing.act([{ kind: 'take-sheet', sheetId: 'r' }])
  expect(drawing.sheet.id).toBe('s')
  drawing.undo()
  expect(drawing.getSnapshot().ink.sheets).toHaveLength(2)
})
test('what was drawn elsewhere is there too, and the way back still leads back', () => {
  const { drawing, ids } = open()
  drawing.act([put('mine')])
  drawing.lay(drawOn(newInk('s'), [put('mine'), put('theirs')]))
  drawing.undo()
  expect(ids()).toEqual(['theirs'])
})
