import { isOfficeFile, kindOfFile } from './kindOfFile'

const file = (name: string, type: string) => new File(['x'], name, { type })

test.each([
  ['IMG_1.JPG', 'image/jpeg', 'picture'],
  ['IMG_1.HEIC', '', 'picture'],
  ['clip.mov', 'video/quicktime', 'film'],
  ['clip.mov', '', 'film'],
  ['clip.avi', 'video/x-msvideo', 'film'],
  ['said.m4a', 'audio/mp4', 'sound'],
  ['said.webm', 'audio/webm;codecs=opus', 'sound'],
  ['song.mp3', 'audio/mpeg', 'sound'],
  ['Plan.PDF', '', 'paper'],
  ['plan', 'application/pdf', 'paper'],
  ['notes.txt', 'text/plain', 'picture'],
])('%s (%s) is taken for a %s', (name, type, kind) => {
  expect(kindOfFile(file(name, type))).toBe(kind)
})

test('what office programs make is known by its name', () => {
  expect(isOfficeFile(file('Story.DOCX', ''))).toBe(true)
  expect(isOfficeFile(file('sums.ods', ''))).toBe(true)
  expect(isOfficeFile(file('story.pdf', ''))).toBe(false)
})
