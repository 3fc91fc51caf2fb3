import { fitsPiece } from './fitsPiece.ts'

const piece = { classId: 'heron', pupil: { id: 'wren' } }
const none = { wholeSchool: false, classIds: [] as string[], owner: null }
const own = (id: string, agreed = true) => ({ ...none, classIds: ['heron'], owner: { id, agreed } })

test.each([
  { what: 'a folder of its class', folder: { ...none, classIds: ['plover', 'heron'] }, fits: true },
  { what: 'a folder of another class', folder: { ...none, classIds: ['plover'] }, fits: false },
  { what: 'a folder of the whole school', folder: { ...none, wholeSchool: true }, fits: true },
  { what: 'the pupil’s own, agreed', folder: own('wren'), fits: true },
  { what: 'the pupil’s own, not agreed yet', folder: own('wren', false), fits: false },
  { what: 'another pupil’s own', folder: own('tomasz'), fits: false },
])('$what', ({ folder, fits }) => expect(fitsPiece(folder, piece)).toBe(fits))
