import { DEMO_CARDS } from '@nibquill/demo'
import { emptySheet, newInk, type InkDocument, type NibLine } from '@nibquill/core/ink/document'
import { Hand } from '@nibquill/core/ink/hand'
import { packPoints } from '@nibquill/core/ink/points'
import { makeInkSizes } from '@nibquill/server/media/kinds/ink'
import type { Browser, Page } from '@playwright/test'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { v7 as newId } from 'uuid'
import { inTurn, line, median, type Line } from './measure.ts'
import { onSmallDemo, visit } from './smallDemo.ts'

const FRAME_MS = 1000 / 60
const SHEET = 'sheet'

/** Wavy lines all over a sheet, none like another. */
const lines = (count: number, points: number): NibLine[] =>
  Array.from({ length: count }, (_, n) => ({
    ...{ kind: 'line', id: `l${n}`, pen: { ink: ['sea'], water: 0, edge: null, width: 90 } },
    points: packPoints(
      Array.from({ length: points }, (_, i) => ({
        x: 500 + ((n * 731) % 13_000) + i * 20,
        y: 500 + ((n * 379) % 11_000) + 300 * Math.sin(i / 8 + n),
        timeMs: i * 16,
        pressure: 0.5 + 0.3 * Math.sin(i / 11),
      })),
    ),
  }))
const inkOf = (things: NibLine[]): InkDocument => ({
  ...newInk(SHEET),
  sheets: [{ ...emptySheet(SHEET), things }],
})

/**
 * Drawing: from a hand's move to what is painted of it on a full sheet, against an empty one and
 * against a frame; opening a long drawing; what a minute of drawing weighs; the server's picture.
 */
export async function benchInk(): Promise<Line[]> {
  return [...(await onSmallDemo(onScreen)), weight(), await serverPicture()]
}

async function onScreen(browser: Browser, at: string): Promise<Line[]> {
  const page = await visit(browser, at, 'card', { code: DEMO_CARDS.Wren })
  await page.goto('/desk')
  const [empty, full, long] = [
    await drawing(page, inkOf([])),
    await drawing(page, inkOf(lines(300, 100))),
    await drawing(page, inkOf(lines(2000, 40))),
  ]
  const paints = { empty: [] as number[], full: [] as number[] }
  const frames: number[] = []
  const opens = { empty: [] as number[], long: [] as number[] }
  for (let round = 0; round < 3; round++) {
    opens.empty.push(await open(page, empty))
    paints.empty.push(...(await drawOn(page)).paints)
    await open(page, full)
    const drawn = await drawOn(page)
    paints.full.push(...drawn.paints)
    frames.push(...drawn.frames)
    opens.long.push(await open(page, long))
  }
  const [onEmpty, onFull] = [p95(paints.empty), p95(paints.full)]
  return [
    line('move to paint, 300 lines of 100 points (p95, ms)', onFull, onEmpty, 'ms', '<=', 1.2),
    line(
      'frame to frame meanwhile, against 60 Hz (p95, ms)',
      p95(frames),
      FRAME_MS,
      'ms',
      '<=',
      1.05,
    ),
    line(
      'opening a drawing of 2,000 lines against an empty one (ms)',
      median(opens.long),
      median(opens.empty),
      'ms',
      '<=',
      3,
    ),
  ]
}

const p95 = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length * 0.95)]!

/** @returns the address where it is drawn on */
async function drawing(page: Page, ink: InkDocument): Promise<string> {
  const [pieceId, partId, mediaId] = [newId(), newId(), newId()]
  const head = { Origin: new URL(page.url()).origin }
  const put = (address: string, data: object) =>
    page.request.put(`/api/pieces/${pieceId}${address}`, { data, headers: head })
  await put('', { taskId: null })
  const bytes = Buffer.from(JSON.stringify(ink))
  const about = (name: string, value: string) => `${name} ${Buffer.from(value).toString('base64')}`
  await page.request.post('/api/media/uploads', {
    data: bytes,
    headers: {
      ...head,
      ...{ 'Tus-Resumable': '1.0.0', 'Upload-Length': String(bytes.length) },
      'Upload-Metadata': [about('mediaId', mediaId), about('filename', 'ink.json')].join(','),
      'Content-Type': 'application/offset+octet-stream',
    },
  })
  await put(`/parts/${partId}`, { kind: 'drawing', name: '', files: { ink: mediaId } })
  return `/my-pieces/${pieceId}/parts/${partId}/draw`
}

/** @returns ms until something is painted of it */
async function open(page: Page, address: string): Promise<number> {
  const began = Date.now()
  await page.goto(address)
  await page.getByRole('application').waitFor()
  await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => setTimeout(done))))
  return Date.now() - began
}

type Seen = { paints: number[]; frames: number[] }
/**
 * Draws a long line. @returns as the page itself sees it: from each move of the hand to the end of
 * the frame that paints it, and from frame to frame
 */
async function drawOn(page: Page): Promise<Seen> {
  const box = (await page.getByRole('application').boundingBox())!
  await page.evaluate(() => {
    const seen: Seen = ((window as unknown as { seen: Seen }).seen = { paints: [], frames: [] })
    const paper = document.querySelector('[role=application]')!
    paper.addEventListener(
      'pointermove',
      ({ timeStamp }) =>
        requestAnimationFrame(() =>
          setTimeout(() => seen.paints.push(performance.now() - timeStamp)),
        ),
      { capture: true },
    )
    paper.addEventListener('pointerdown', () => {
      let last = 0
      const look = (frame: number) => {
        if (last > 0) seen.frames.push(frame - last)
        last = frame
        if (seen.paints.length < 200) requestAnimationFrame(look)
      }
      requestAnimationFrame(look)
    })
  })
  await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.5)
  await page.mouse.down()
  for (let i = 0; i < 200; i++) {
    await page.mouse.move(
      box.x + box.width * (0.5 - 0.2 * Math.cos(i / 20)),
      box.y + box.height * (0.5 + 0.2 * Math.sin(i / 13)),
    )
  }
  await page.keyboard.press('Escape')
  await page.mouse.up()
  return page.evaluate(() => (window as unknown as { seen: Seen }).seen)
}

/** A minute of a hand that draws two thirds of the time, against the same points as plain objects. */
function weight(): Line {
  const things: NibLine[] = []
  const plain: object[] = []
  for (let began = 0; began < 60_000; began += 1500) {
    const hand = new Hand()
    for (let ms = 0; ms < 1000; ms += 1000 / 60)
      hand.add({
        ...{ x: 8000 + 4000 * Math.sin((began + ms) / 700), y: 6000 + 3000 * Math.cos(ms / 240) },
        ...{ timeMs: began + ms, pressure: 0.5 + 0.2 * Math.sin(ms / 90) },
      })
    const pen = { ink: ['sea'], water: 0, edge: null, width: 180 } as const
    things.push({ kind: 'line', id: newId(), pen, points: packPoints(hand.points) })
    plain.push({ pen, points: hand.points })
  }
  const kilobytes = (of: unknown) => JSON.stringify(of).length / 1024
  return line('a minute of drawing (KB)', kilobytes(things), kilobytes(plain), 'KB', '<=', 0.25)
}

/** Three sizes of 300 lines of 100 points, against the same of an empty sheet. */
async function serverPicture(): Promise<Line> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'nibquill-ink-'))
  const file = (name: string, ink: InkDocument) => {
    const at = path.join(folder, name)
    writeFileSync(at, JSON.stringify(ink))
    return at
  }
  const [full, empty] = [file('full.json', inkOf(lines(300, 100))), file('empty.json', inkOf([]))]
  const noPicture = () => Promise.resolve(null)
  try {
    await makeInkSizes(empty, folder, noPicture)
    const { value, floor } = await inTurn(
      5,
      () => makeInkSizes(full, folder, noPicture),
      () => makeInkSizes(empty, folder, noPicture),
    )
    return line(
      'server picture of 300 lines against an empty sheet (ms)',
      value,
      floor,
      'ms',
      '<=',
      8,
    )
  } finally {
    rmSync(folder, { recursive: true, force: true })
  }
}
