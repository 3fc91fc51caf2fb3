import { spawn } from 'node:child_process'
import { median, line, type Line } from './measure.ts'

const ROUNDS = 3

/**
 * The book of 150 pages against the PDF library alone placing the same images, each in a process of
 * its own so that memory is its own.
 */
export async function benchBook(): Promise<Line[]> {
  const runs = { book: [] as Run[], alone: [] as Run[], long: [] as Run[] }
  for (let round = 0; round < ROUNDS; round++) {
    runs.book.push(await make('book', 150))
    runs.alone.push(await make('alone', 150))
  }
  runs.long.push(await make('book', 600))
  const of = (list: Run[], key: keyof Run) => median(list.map((run) => run[key]))
  return [
    line('book time, 150 pages', of(runs.book, 'ms'), of(runs.alone, 'ms'), 'ms', '<=', 1.3),
    line('book memory, 150 pages', of(runs.book, 'mb'), of(runs.alone, 'mb'), 'MB peak', '<=', 1.3),
    line(
      'book memory, 600 pages against 150',
      of(runs.long, 'mb'),
      of(runs.book, 'mb'),
      'MB peak',
      '<=',
      1.25,
    ),
  ]
}

type Run = { ms: number; mb: number }

function make(what: 'book' | 'alone', pages: number): Promise<Run> {
  return new Promise((resolve, reject) => {
    const child = spawn(
      process.execPath,
      [
        '--import',
        'tsx',
        new URL('./makeOneBook.ts', import.meta.url).pathname,
        what,
        String(pages),
      ],
      { stdio: ['ignore', 'pipe', 'inherit'] },
    )
    let output = ''
    child.stdout.on('data', (chunk: Buffer) => (output += chunk.toString()))
    child.on('exit', (code) =>
      code === 0
        ? resolve(JSON.parse(output) as Run)
        : reject(new Error(`bench of ${what} ended with ${code}`)),
    )
  })
}
