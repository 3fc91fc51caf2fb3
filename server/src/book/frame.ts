import type { Writable } from 'node:stream'
import { INK_SOFT, INNER, MARGIN, PAGE, RULE, type Pen } from '../print/pen.ts'
import type { Printed } from './printing.ts'

export type BookPage = {
  title: string
  folderName: string
  termName: string | null
  reflection: string
  reason: string
  /** What stands at the foot of its pages. */
  foot: string
  /** Its parts, in order; `key` reads a picture or ink. */
  printed: Printed[]
  link: string
}
export type BookOrder = {
  title: string
  pupilName: string
  termName: string
  schoolName: string
  pages: BookPage[]
  readFile: (key: string) => Promise<Buffer>
  onPage: (pagesDone: number) => Promise<void>
  /** Where the PDF goes, page by page. */
  out: Writable
}

/** Where what is shown of a piece begins, under its title. */
export const SHOWN_TOP = 130
export const FOOT = PAGE.height - 58

const DAYS = new Map<string, Intl.DateTimeFormat>()
/** A day as it stands on paper. @param moment - ISO 8601 */
export function dayOf(moment: string, timeZone: string): string {
  const format =
    DAYS.get(timeZone) ??
    new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone })
  DAYS.set(timeZone, format)
  return format.format(new Date(moment))
}

/** The line at the foot of each page. */
export function drawFoot(pen: Pen, left: string, number: number): void {
  pen.aside(() => {
    pen.doc
      .moveTo(MARGIN, FOOT)
      .lineTo(PAGE.width - MARGIN, FOOT)
      .lineWidth(0.75)
      .stroke(RULE)
    pen.text(left, {
      x: MARGIN,
      y: FOOT + 10,
      width: INNER - 60,
      size: 10.5,
      colour: INK_SOFT,
      height: 15,
    })
    pen.text(String(number), {
      x: PAGE.width - MARGIN - 50,
      y: FOOT + 10,
      width: 50,
      size: 10.5,
      align: 'right',
      colour: INK_SOFT,
    })
  })
}
