import {
  fromUnitSquare,
  invert,
  project,
  type Point,
  type Quad,
} from '@nibquill/core/tidy/projective'
import sharp from 'sharp'
import { Chance } from './chance.ts'
import { DRAWINGS, type DrawingName } from './drawings/index.ts'

/** How a sheet lies under the camera. */
export type SheetView = {
  /** Degrees the tablet leans away from straight above. */
  lean: number
  /** Degrees the sheet is turned on the table. */
  turn: number
  /** Sheet width as a share of the picture's, seen from straight above. */
  near: number
  /** Where the middle of the sheet lies, as shares of the picture away from its middle. */
  aside: Point
  /** Lightness of the table, 0..1; paper is 0.94. */
  table: number
  /** Light falls off across the picture by this share. */
  falloff: number
  /** Darkness of the shadow with a sharp edge that falls across. */
  shadow: number
  /** Pencils, rubbers and the like; more of them under and over the edges of the sheet. */
  clutter: number
  /** Other sheets that stick out from under this one. */
  sheetsBelow: number
  /** A thumb that holds the sheet by an edge. */
  thumb: boolean
  blurPx: number
  noise: number
}

/** As a grown-up would take it: from above, on dark wood, in daylight. */
export const PLAIN_SHEET: SheetView = {
  lean: 0,
  turn: 0,
  near: 0.75,
  aside: { x: 0, y: 0 },
  table: 0.35,
  falloff: 0.1,
  shadow: 0,
  clutter: 0,
  sheetsBelow: 0,
  thumb: false,
  blurPx: 0.5,
  noise: 0.01,
}

/**
 * A view as hard as asked: easy at 0; at 1 a steep look at a white table with other sheets, shadows
 * and pencils everywhere.
 */
export function sheetOfDifficulty(difficulty: number, seed: number): SheetView {
  const chance = new Chance(seed)
  const upTo = (most: number) => chance.next() * most * difficulty
  const either = () => chance.between(-1, 1)
  return {
    lean: 4 + upTo(46),
    turn: either() * (6 + 39 * difficulty),
    near: 0.74 - upTo(0.24),
    aside: { x: either() * 0.06 * difficulty, y: either() * 0.06 * difficulty },
    table: 0.25 + upTo(0.6),
    falloff: 0.1 + upTo(0.5),
    shadow: chance.next() < difficulty ? upTo(0.5) : 0,
    clutter: Math.round(upTo(16)),
    sheetsBelow: chance.next() < difficulty * 0.7 ? 1 + Math.round(upTo(1)) : 0,
    thumb: chance.next() < difficulty * 0.6,
    blurPx: 0.4 + upTo(1.8),
    noise: 0.01 + upTo(0.06),
  }
}

const FRAME = { width: 1280, height: 960 }
const SHEET = { width: 1400, height: 1008 }
/** Of a tablet's camera, against the picture's width (common practice, no source). */
const FOCAL = 0.8

/**
 * A photo of a drawn sheet on a table. `corners`: where its four corners really are, as shares,
 * from the sheet's own top left clockwise.
 */
export type DeskPicture = { jpeg: Buffer; corners: Quad; aspect: number }

export async function photographSheet(
  view: SheetView,
  seed: number,
  frame = FRAME,
): Promise<DeskPicture> {
  const chance = new Chance(seed * 31 + 7)
  const corners = placeSheet(view, frame)
  const { data: sheet } = await sharp(Buffer.from(sheetSvg(chance)))
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  const table = await sharp(Buffer.from(tableSvg(view, frame, corners, chance)))
    .removeAlpha()
    .raw()
    .toBuffer()
  layOn(table, frame, sheet, corners)
  const lit = await sharp(table, { raw: { ...frame, channels: 3 } })
    .composite([{ input: Buffer.from(overSvg(view, frame, corners, chance)) }])
    .png({ compressionLevel: 0 })
    .toBuffer()
  const soft = await sharp(lit).blur(Math.max(0.3, view.blurPx)).removeAlpha().raw().toBuffer()
  for (let i = 0; i < soft.length; i++) {
    const value = soft[i]! + (chance.next() + chance.next() - 1) * view.noise * 255
    soft[i] = value < 0 ? 0 : value > 255 ? 255 : value
  }
  const jpeg = await sharp(soft, { raw: { ...frame, channels: 3 } })
    .jpeg({ quality: 85 })
    .toBuffer()
  const shares = corners.map(({ x, y }) => ({
    x: x / frame.width,
    y: y / frame.height,
  })) as unknown as Quad
  return { jpeg, corners: shares, aspect: SHEET.width / SHEET.height }
}

/**
 * A pinhole camera over a table: where the sheet's corners come to lie in the picture, in pixels.
 */
function placeSheet(view: SheetView, { width, height }: typeof FRAME): Quad {
  const focal = FOCAL * width
  const half = { x: 0.5, y: 0.5 * (SHEET.height / SHEET.width) }
  const away = focal / (view.near * width)
  const [turn, lean] = [(view.turn * Math.PI) / 180, (view.lean * Math.PI) / 180]
  const see = ({ x, y }: Point): Point => {
    const [tx, ty] = [
      x * Math.cos(turn) - y * Math.sin(turn),
      x * Math.sin(turn) + y * Math.cos(turn),
    ]
    const depth = away - ty * Math.sin(lean)
    return {
      x: width * (0.5 + view.aside.x) + (focal * tx) / depth,
      y: height * (0.5 + view.aside.y) + (focal * ty * Math.cos(lean)) / depth,
    }
  }
  return [
    see({ x: -half.x, y: -half.y }),
    see({ x: half.x, y: -half.y }),
    see(half),
    see({ x: -half.x, y: half.y }),
  ]
}

/** Four looks at every pixel, so that edges are as soft as a lens makes them. */
function layOn(table: Buffer, { width, height }: typeof FRAME, sheet: Buffer, corners: Quad): void {
  const back = invert(fromUnitSquare(corners))
  const looks = [0.25, 0.75]
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const sum = [0, 0, 0]
      let on = 0
      for (const dy of looks)
        for (const dx of looks) {
          const { x: u, y: v } = project(back, { x: x + dx, y: y + dy })
          if (u < 0 || v < 0 || u >= 1 || v >= 1) continue
          const at = (Math.floor(v * SHEET.height) * SHEET.width + Math.floor(u * SHEET.width)) * 3
          for (let channel = 0; channel < 3; channel++) sum[channel]! += sheet[at + channel]!
          on++
        }
      const at = (y * width + x) * 3
      if (on > 0)
        for (let channel = 0; channel < 3; channel++)
          table[at + channel] = (sum[channel]! + table[at + channel]! * (4 - on)) / 4
    }
}

function sheetSvg(chance: Chance): string {
  const { content } = DRAWINGS[chance.pick(Object.keys(DRAWINGS) as DrawingName[])](chance)
  // Some children draw a frame first.
  const frame =
    chance.next() < 0.3
      ? '<rect x="45" y="40" width="910" height="640" fill="none" stroke="#3a2a22" stroke-width="9"/>'
      : ''
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${SHEET.width}" height="${SHEET.height}" viewBox="0 0 1000 720"><rect width="1000" height="720" fill="${chance.pick(['#f6f1e6', '#f3efe6', '#f8f4ea', '#efeade', '#e9efe4'])}"/>${content}${frame}</svg>`
}

const svg = ({ width, height }: typeof FRAME, content: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${content}</svg>`
const middleOf = (corners: Quad): Point => ({
  x: corners.reduce((sum, { x }) => sum + x, 0) / 4,
  y: corners.reduce((sum, { y }) => sum + y, 0) / 4,
})

function tableSvg(view: SheetView, frame: typeof FRAME, corners: Quad, chance: Chance): string {
  const hue = chance.between(20, 45)
  const light = Math.round(view.table * 100)
  const veins = Array.from({ length: 34 }, () => {
    const y = chance.between(0, frame.height)
    return `<path d="M0 ${y} q${frame.width / 4} ${chance.between(-14, 14)} ${frame.width / 2} 0 t${frame.width / 2} 0" stroke="hsl(${hue} 30% ${light * 0.6}%)" stroke-opacity="${chance.between(0.05, 0.25).toFixed(2)}" stroke-width="${chance.between(1, 4).toFixed(1)}" fill="none"/>`
  }).join('')
  const middle = middleOf(corners)
  const below = Array.from({ length: view.sheetsBelow }, () => {
    const turn = chance.between(-35, 35)
    const [dx, dy] = [
      chance.between(-0.3, 0.3) * frame.width,
      chance.between(-0.3, 0.3) * frame.height,
    ]
    const points = corners.map(({ x, y }) => `${x + dx},${y + dy}`).join(' ')
    return `<polygon points="${points}" fill="${chance.pick(['#ffffff', '#f2ead8', '#dfe9f2', '#f4dfe0'])}" stroke="#000" stroke-opacity="0.25" stroke-width="2" transform="rotate(${turn} ${middle.x + dx} ${middle.y + dy})"/>`
  }).join('')
  const shade = `<polygon points="${corners.map(({ x, y }) => `${x + 5},${y + 7}`).join(' ')}" fill="#000" opacity="0.3"/>`
  return svg(
    frame,
    `<rect width="100%" height="100%" fill="hsl(${hue} ${Math.round(45 * (1 - view.table))}% ${light}%)"/>${veins}${below}${things(view.clutter, frame, chance)}${shade}`,
  )
}

const things = (count: number, frame: typeof FRAME, chance: Chance): string =>
  Array.from({ length: count }, () => {
    const [x, y] = [chance.next() * frame.width, chance.next() * frame.height]
    const colour = `hsl(${Math.round(chance.next() * 360)} ${Math.round(30 + chance.next() * 60)}% ${Math.round(20 + chance.next() * 60)}%)`
    const [length, thick] = [chance.between(80, 320), chance.between(10, 46)]
    return `<rect x="${x}" y="${y}" width="${length}" height="${thick}" rx="${thick / 3}" fill="${colour}" stroke="#000" stroke-opacity="0.3" transform="rotate(${chance.between(0, 180)} ${x} ${y})"/>`
  }).join('')

function overSvg(view: SheetView, frame: typeof FRAME, corners: Quad, chance: Chance): string {
  const { width, height } = frame
  const angle = chance.between(0, 360)
  const edge = chance.between(0.35, 0.65) * width
  const shadow = view.shadow
    ? `<rect x="${edge}" y="${-height}" width="${width * 2}" height="${height * 3}" fill="#0c0a12" opacity="${view.shadow}" transform="rotate(${chance.between(-40, 40)} ${width / 2} ${height / 2})"/>`
    : ''
  // One or two things lie on the sheet's edge.
  const upon = view.clutter > 6 ? things(2, frame, chance) : ''
  const side = Math.floor(chance.next() * 4)
  const [from, to] = [corners[side]!, corners[(side + 1) % 4]!]
  const share = chance.between(0.1, 0.9)
  const hold = { x: from.x + (to.x - from.x) * share, y: from.y + (to.y - from.y) * share }
  const middle = middleOf(corners)
  const thumb = view.thumb
    ? `<ellipse cx="${hold.x}" cy="${hold.y}" rx="95" ry="36" fill="#c68d6c" stroke="#7c4f38" stroke-opacity="0.4" transform="rotate(${(Math.atan2(middle.y - hold.y, middle.x - hold.x) * 180) / Math.PI} ${hold.x} ${hold.y})"/>`
    : ''
  const light = `<defs><linearGradient id="l" gradientTransform="rotate(${angle} 0.5 0.5)"><stop offset="0" stop-color="#000" stop-opacity="0"/><stop offset="1" stop-color="#120c04" stop-opacity="${view.falloff}"/></linearGradient></defs><rect width="100%" height="100%" fill="url(#l)"/>`
  return svg(frame, `${upon}${thumb}${shadow}${light}`)
}
