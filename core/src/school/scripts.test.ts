import { scriptsIn } from './scripts.ts'

test.each([
  ['Zoë Šárka Nguyễn', []],
  ['Олександра', ['cyrillic']],
  ['مريم and נועה', ['arabic', 'hebrew']],
  ['さくら 田中', ['japanese', 'chinese']],
  ['김서연', ['korean']],
])('%s', (text, scripts) => expect(scriptsIn(text)).toEqual(scripts))
