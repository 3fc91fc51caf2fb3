import { writeFileSync } from 'node:fs'
import { parseArgs } from 'node:util'
import { benchArrival } from './arrival.ts'
import { benchBadDays } from './badDays.ts'
import { benchBook } from './book.ts'
import { benchFelt } from './felt.ts'
import { benchInk } from './ink.ts'
import { benchLive } from './live.ts'
import type { Line } from './measure.ts'
import { benchPictures } from './pictures.ts'
import { benchLists } from './lists.ts'
import { benchScan } from './scan.ts'
import { benchScript } from './script.ts'
import { benchSound } from './sound.ts'
import { benchFilm } from './film.ts'
import { benchTidy } from './tidy.ts'
import { benchTray } from './tray.ts'
import { benchTrayScroll } from './trayScroll.ts'
import { benchUploads } from './uploads.ts'
import { benchVoices } from './voices.ts'

const BENCHES: Record<string, () => Promise<Line[]>> = {
  pictures: benchPictures,
  book: benchBook,
  tray: benchTray,
  'tray-scroll': benchTrayScroll,
  lists: benchLists,
  scan: benchScan,
  tidy: benchTidy,
  script: benchScript,
  uploads: benchUploads,
  arrival: benchArrival,
  felt: benchFelt,
  live: benchLive,
  ink: benchInk,
  sound: benchSound,
  voices: benchVoices,
  film: benchFilm,
  'bad-days': benchBadDays,
}
const { values } = parseArgs({ options: { only: { type: 'string' }, json: { type: 'string' } } })
if (values.only && !BENCHES[values.only])
  throw new Error(`no bench called ${values.only}; there are ${Object.keys(BENCHES).join(', ')}`)

const lines: Line[] = []
for (const [name, bench] of Object.entries(BENCHES))
  if (!values.only || values.only === name) lines.push(...(await bench()))
console.table(Object.fromEntries(lines.map(({ name, ...rest }) => [name, rest])))
if (values.json) writeFileSync(values.json, JSON.stringify(lines, null, 2))
process.exit(0)
