import { execFileSync } from 'node:child_process'
import { createWriteStream, mkdtempSync, rmSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { drawCards } from './drawCards.ts'

/** First names in the scripts of a class, as pupils write them. */
const NAMES: Record<string, string> = {
  Latin: 'Zoë Šárka',
  Vietnamese: 'Nguyễn Thị',
  Cyrillic: 'Олександра',
  Greek: 'Αλεξάνδρα',
  Arabic: 'مريم عبدالله',
  Urdu: 'زینب گل',
  Persian: 'پریسا',
  Hebrew: 'נועה לוי',
  Devanagari: 'श्रीकृति',
  Bengali: 'প্রিয়াঙ্কা',
  Gurmukhi: 'ਹਰਪ੍ਰੀਤ',
  Gujarati: 'ધ્રુવી',
  Tamil: 'கார்த்திகேயன்',
  Telugu: 'శ్రీలక్ష్మి',
  Kannada: 'ಕೃತಿಕಾ',
  Malayalam: 'ശ്രീലക്ഷ്മി',
  Sinhala: 'නිර්මලා',
  Thai: 'ณัฐธิดา',
  Georgian: 'ნინო',
  Armenian: 'Անահիտ',
  Ethiopic: 'ሰላማዊት',
  Chinese: '王小明',
  Japanese: 'さくら 田中',
  Korean: '김서연',
}

let text: string
let images: string
beforeAll(async () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-scripts-'))
  const file = path.join(folder, 'cards.pdf')
  await drawCards(
    Object.values(NAMES).map((name, i) => ({
      name,
      className: 'Heron',
      peg: null,
      code: 'ACDEFGHJKMNPRTWX',
      address: `https://nibquill.example/sign-in#${i}`,
    })),
    {
      title: 'Name cards',
      schoolName: 'Saltmarsh Primary School',
      site: 'https://nibquill.example',
    },
    createWriteStream(file),
  )
  execFileSync('qpdf', ['--check', file])
  text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' }).normalize('NFC')
  images = execFileSync('pdffonts', [file], { encoding: 'utf8' })
  rmSync(folder, { recursive: true })
})

test.each(Object.entries(NAMES))('a name in %s is read from its card: %s', (_, name) => {
  for (const word of name.split(' ')) expect(text).toContain(word.normalize('NFC'))
  expect(text).not.toContain('▫')
})

test('each script is set in a face of its own that is part of the file', () => {
  for (const face of ['NotoSansArabic', 'NotoSansDevanagari', 'NotoSansSC', 'NotoSansKR'])
    expect(images).toMatch(new RegExp(`${face}\\S*.*yes`))
})

test('a card says its class, and where its letters are typed', () => {
  expect(text).toContain('Heron')
  expect(text).toContain('nibquill.example')
})
