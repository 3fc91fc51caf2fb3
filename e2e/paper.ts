import { InkDocument } from '@nibquill/contract/ink'
import type { DrawingPart, Piece } from '@nibquill/contract'
import type { CDPSession, Locator, Page } from '@playwright/test'
import * as v from 'valibot'
import { expect } from './expect.ts'

/** In millimetres from the sheet's upper left corner. */
export type Mm = readonly [x: number, y: number]

/** The sheet under somebody's hand, whatever the hand holds. */
export class Paper {
  readonly page: Page
  readonly canvas: Locator
  readonly size: { width: number; height: number }
  #cdp: CDPSession | null = null
  constructor(page: Page, size = { width: 160, height: 120 }) {
    this.page = page
    this.canvas = page.getByRole('application')
    this.size = size
  }

  /** Where places of the sheet are on the screen, at its own size. */
  async #places(places: readonly Mm[]): Promise<{ x: number; y: number }[]> {
    const box = (await this.canvas.boundingBox())!
    const margin = 20
    const scale = Math.min(
      (box.width - 2 * margin) / this.size.width,
      (box.height - 2 * margin) / this.size.height,
    )
    return places.map(([x, y]) => ({
      x: box.x + (box.width - this.size.width * scale) / 2 + x * scale,
      y: box.y + (box.height - this.size.height * scale) / 2 + y * scale,
    }))
  }

  async place(place: Mm): Promise<{ x: number; y: number }> {
    return (await this.#places([place]))[0]!
  }

  /**
   * With the mouse, from place to place, and lifted at the last. A hand that goes straight on is seen
   * on its way; one that turns often is seen where it turns.
   */
  async draw(places: readonly Mm[]): Promise<void> {
    const [at, ...rest] = await this.#places(places)
    const steps = rest.length < 8 ? 4 : 1
    await this.page.mouse.move(at!.x, at!.y)
    await this.page.mouse.down()
    for (const to of rest) await this.page.mouse.move(to.x, to.y, { steps })
    await this.page.mouse.up()
  }

  async #session(): Promise<CDPSession> {
    return (this.#cdp ??= await this.page.context().newCDPSession(this.page))
  }

  /** With fingers: where each of them is, one moment after the other; then all are lifted. */
  async touch(moments: readonly (readonly Mm[])[], radiusPx = 8): Promise<void> {
    const cdp = await this.#session()
    for (const [i, fingers] of moments.entries()) {
      const places = await this.#places(fingers)
      await cdp.send('Input.dispatchTouchEvent', {
        type: i === 0 || moments[i - 1]!.length < fingers.length ? 'touchStart' : 'touchMove',
        touchPoints: places.map((place, id) => ({
          ...place,
          ...{ id, radiusX: radiusPx, radiusY: radiusPx },
        })),
      })
    }
    await cdp.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
  }

  /** With a pen, pressed as hard as said at each place, 0 to 1. */
  async pen(places: readonly (readonly [Mm, force: number])[]): Promise<void> {
    const cdp = await this.#session()
    const on = await this.#places(places.map(([place]) => place))
    for (const [i, [, force]] of places.entries())
      await cdp.send('Input.dispatchMouseEvent', {
        ...{ type: i === 0 ? 'mousePressed' : 'mouseMoved', pointerType: 'pen', force },
        ...{ button: 'left', buttons: 1, clickCount: 1, ...on[i]! },
      })
    await cdp.send('Input.dispatchMouseEvent', {
      ...{ type: 'mouseReleased', pointerType: 'pen', button: 'left', clickCount: 1 },
      ...on.at(-1)!,
    })
  }
}

/** Opens a new drawing from the desk. */
export async function newDrawing(page: Page): Promise<Paper> {
  await page.getByRole('button', { name: 'Draw', exact: true }).click()
  const paper = new Paper(page)
  await expect(paper.canvas).toBeVisible()
  return paper
}

export const chooseTool = (page: Page, name: 'Nib' | 'Patch' | 'Ruler' | 'Rubber') =>
  page.getByRole('radiogroup', { name: 'Pen roll' }).getByRole('radio', { name }).click()
export const chooseInk = (page: Page, name: string) =>
  page.getByRole('radiogroup', { name: 'Ink' }).getByRole('radio', { name, exact: true }).click()

/** The id of the piece on the screen, once the first line is kept. */
export async function idOfDrawing(page: Page): Promise<string> {
  await page.waitForURL(/draw\?(.*&)?id=/)
  return new URL(page.url()).searchParams.get('id')!
}

export const drawingIn = (piece: Pick<Piece, 'parts'>): DrawingPart | undefined =>
  piece.parts.find((part) => part.kind === 'drawing')

/** What the school has of a piece's drawing. */
export async function inkAtSchool(page: Page, pieceId: string): Promise<InkDocument | null> {
  const response = await page.request.get(`/api/pieces/${pieceId}`)
  if (!response.ok()) return null
  const part = drawingIn((await response.json()) as Piece)
  if (!part) return null
  const ink = await page.request.get(`/api/media/${part.files.ink.mediaId}/full`)
  // Drawn on between the two questions, it is another by now.
  return ink.ok() ? v.parse(InkDocument, await ink.json()) : null
}

/** Waits until the school has that many things on the first sheet, and gives them. */
export async function thingsAtSchool(page: Page, pieceId: string, count: number) {
  let things: InkDocument['sheets'][number]['things'] = []
  await expect
    .poll(async () => (things = (await inkAtSchool(page, pieceId))?.sheets[0]!.things ?? []).length)
    .toBe(count)
  return things
}

/** A line as a hand waves it, so far down the sheet. */
export const wave = (y: number, from = 20, to = 140): Mm[] =>
  Array.from({ length: 20 }, (_, i) => [from + ((to - from) * i) / 19, y + 4 * Math.sin(i / 2)])

export const kindsOf = (things: readonly { kind: string }[]) => things.map(({ kind }) => kind)
