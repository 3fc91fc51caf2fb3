import iconv from 'iconv-lite'
import Papa from 'papaparse'

/** How the letters of a file are written. */
export const ENCODINGS = ['utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const
export type Encoding = (typeof ENCODINGS)[number]

/**
 * The text of a file as spreadsheets and registers write it, and how it was written: UTF-8 or
 * UTF-16 by their byte-order mark, else UTF-8, else Windows-1252.
 * @returns null where these are no letters: a picture, a program
 * @see WHATWG Encoding Standard
 */
export function decodeText(bytes: Uint8Array): { text: string; encoding: Encoding } | null {
  const encoding = encodingOf(bytes)
  // Node's own reader leaves out what Windows-1252 has between 0x80 and 0x9F.
  const text =
    encoding === 'windows-1252'
      ? iconv.decode(Buffer.from(bytes), 'win1252')
      : new TextDecoder(encoding).decode(bytes)
  return text.includes('\0') ? null : { text, encoding }
}

function encodingOf(bytes: Uint8Array): Encoding {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return 'utf-16le'
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return 'utf-16be'
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes)
    return 'utf-8'
  } catch {
    return 'windows-1252'
  }
}

/**
 * Rows of cells, trimmed; comma, semicolon or tab are found out. Empty rows are left out; `line`
 * counts rows from 1 as written.
 * @see RFC 4180
 */
export function readCsv(text: string): { line: number; cells: string[] }[] {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    delimiter: delimiterOf(text),
    skipEmptyLines: false,
  })
  return data
    .map((cells, i) => ({ line: i + 1, cells: cells.map((cell) => unguard(cell.trim())) }))
    .filter(({ cells }) => cells.some((cell) => cell !== ''))
}

/**
 * Of comma, semicolon and tab, the one that stands outside quotes most often in the first line that
 * has any.
 */
function delimiterOf(text: string): string {
  for (const line of text
    .slice(0, 100_000)
    .split(/\r\n|\n|\r/)
    .slice(0, 50)) {
    const bare = line.replace(/"[^"]*"/g, '')
    const counts = ['\t', ';', ','].map((mark) => ({ mark, count: bare.split(mark).length - 1 }))
    const best = counts.reduce((a, b) => (b.count > a.count ? b : a))
    if (best.count > 0) return best.mark
  }
  return ','
}

/** A cell a spreadsheet would take for a formula. @see OWASP, CSV Injection */
const FORMULA = /^[=+\-@\t\r]/
const unguard = (cell: string): string => (/^'[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell)

/**
 * Comma-separated text with a heading row, CRLF line ends; what a spreadsheet would run as a
 * formula gets a quote in front.
 * @see RFC 4180
 */
export function writeCsv(
  headings: readonly string[],
  rows: readonly (readonly string[])[],
): string {
  const guard = (cell: string) => (FORMULA.test(cell) ? `'${cell}` : cell)
  return (
    Papa.unparse([headings, ...rows.map((row) => row.map(guard))] as string[][], {
      newline: '\r\n',
    }) + '\r\n'
  )
}
