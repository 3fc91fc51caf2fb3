/** Words that say nothing a year later, alone or with a number. */
const EMPTY_WORDS = new Set([
  'art',
  'book',
  'copy',
  'doc',
  'document',
  'drawing',
  'file',
  'homework',
  'image',
  'img',
  'literacy',
  'maths',
  'my',
  'new',
  'no',
  'name',
  'page',
  'photo',
  'photos',
  'pic',
  'picture',
  'pictures',
  'piece',
  'pxl',
  'dsc',
  'dscf',
  'scan',
  'screenshot',
  'sheet',
  'stuff',
  'task',
  'test',
  'thing',
  'title',
  'untitled',
  'work',
  'worksheet',
  'writing',
  'a',
  'an',
  'the',
  'it',
  'this',
  'of',
  'and',
  'me',
  'i',
  'jpg',
  'jpeg',
  'png',
  'heic',
])

/**
 * Whether a title will say nothing in a year: empty, one letter over and over, a camera's file
 * name, only general words and numbers
 * (`art`, `photo 1`, `my work`), or the bare name of its folder. It is a nudge's rule, never a
 * block's: common practice, no source.
 * @param folder - Name of the folder it goes into, where that is known.
 */
export function isVagueTitle(title: string, folder?: string): boolean {
  const plain = plainOf(title)
  if (plain === '' || /^([a-z\d])\1*$/.test(plain.replaceAll(' ', ''))) return true
  if (folder !== undefined && plain === plainOf(folder)) return true
  return plain.split(' ').every((word) => EMPTY_WORDS.has(word) || /^\d+$/.test(word))
}

/**
 * Small letters without accents, marks or endings of files; words apart by one gap, numbers apart
 * from letters.
 */
const plainOf = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .replace(/(\p{L})(\p{N})/gu, '$1 $2')
    .replace(/(\p{N})(\p{L})/gu, '$1 $2')
    .trim()
