import sharp from 'sharp'
import { Chance } from './chance.ts'

/** How a tablet's camera sees a card; each share is 0..1, more is worse. */
export type CardView = {
  /** Degrees the card is turned. */
  turn: number
  /** Card width as a share of the picture's. */
  near: number
  mirrored: boolean
  /** Light taken away. */
  dim: number
  /** Shadow across the picture. */
  shadow: number
  /** Shine of a lamp on the card. */
  glare: number
  blurPx: number
  noise: number
  /** A busy table under the card. */
  busy: boolean
  /** Share of the QR code's lower edge under a thumb. */
  covered: number
  /** The card leans back: its far edge is drawn together to this share of its width less. */
  lean: number
}
export const PLAIN_VIEW: CardView = {
  turn: 0,
  near: 0.6,
  mirrored: false,
  dim: 0,
  shadow: 0,
  glare: 0,
  blurPx: 0,
  noise: 0,
  busy: false,
  covered: 0,
  lean: 0,
}

/** Steps in between are thrown away: packing them would cost more than anything else here. */
const QUICK = { compressionLevel: 0 } as const

type Frame = { width: number; height: number }
export const CAMERA_FRAME: Frame = { width: 1280, height: 720 }

/**
 * A view as hard as asked: easy at 0, hardly to be read at 1. Each seed spoils it in its own way.
 */
export function viewOfDifficulty(difficulty: number, seed: number): CardView {
  const chance = new Chance(seed)
  const upTo = (most: number) => chance.next() * most * difficulty
  return {
    turn: chance.between(-1, 1) * (10 + 80 * difficulty),
    near: 0.62 - upTo(0.42),
    mirrored: chance.next() < 0.3,
    dim: upTo(0.93),
    shadow: upTo(0.95),
    glare: upTo(0.9),
    blurPx: upTo(4),
    noise: upTo(0.35),
    busy: chance.next() < 0.3 + 0.5 * difficulty,
    covered: upTo(0.16),
    lean: upTo(0.3),
  }
}

/**
 * A picture of a card as a tablet would take it.
 * @param card - The printed card as a PNG, upright.
 * @returns a JPEG of the frame's size
 */
export async function photographCard(
  card: Buffer,
  view: CardView,
  seed = 1,
  frame = CAMERA_FRAME,
): Promise<Buffer> {
  const width = Math.round(frame.width * view.near)
  const flat = await sharp(card)
    .resize({ width })
    .flatten({ background: '#fff' })
    .png(QUICK)
    .toBuffer()
  const { height = 1 } = await sharp(flat).metadata()
  const spoiled = await sharp(flat)
    .composite([{ input: Buffer.from(coverSvg(width, height, view)) }])
    .png(QUICK)
    .toBuffer()
  const leaning = await leanBack(spoiled, width, height, view.lean)
  const turned = await sharp(leaning)
    .rotate(view.turn, { background: '#00000000' })
    .resize({ width: frame.width, height: frame.height, fit: 'inside', withoutEnlargement: true })
    .toBuffer()
  const laid = await sharp({ create: { ...frame, channels: 3, background: '#8d8375' } })
    .composite([
      ...(view.busy ? [{ input: Buffer.from(busyTableSvg(frame, seed)) }] : []),
      { input: turned },
      { input: Buffer.from(lightSvg(frame, view)) },
    ])
    .png(QUICK)
    .toBuffer()
  const blurred = view.blurPx > 0.3 ? await sharp(laid).blur(view.blurPx).toBuffer() : laid
  const dimmed = await sharp(blurred)
    .linear(1 - view.dim, 4)
    .removeAlpha()
    .raw()
    .toBuffer()
  addNoise(dimmed, view.noise * (1 - 0.7 * view.dim), seed)
  const grainy = sharp(dimmed, { raw: { ...frame, channels: 3 } })
  return (view.mirrored ? grainy.flop() : grainy).jpeg({ quality: 85 }).toBuffer()
}

/** A thumb over the code's lower edge. The code stands in the right half of the card. */
function coverSvg(width: number, height: number, view: CardView): string {
  const code = width * 0.34
  const deep = code * view.covered
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">
    ${view.covered > 0 ? `<ellipse cx="${width * 0.8}" cy="${height * 0.1 + code}" rx="${code * 0.3}" ry="${deep}" fill="#c89a7c"/>` : ''}</svg>`
}

/** Rows are drawn together towards the top: what a card looks like that is not held upright. */
async function leanBack(png: Buffer, width: number, height: number, lean: number): Promise<Buffer> {
  if (lean < 0.01) return png
  const source = await sharp(png).ensureAlpha().raw().toBuffer()
  const out = Buffer.alloc(source.length)
  for (let y = 0; y < height; y++) {
    const wide = 1 - lean * (1 - y / height)
    for (let x = 0; x < width; x++) {
      const from = Math.round((x - width / 2) / wide + width / 2)
      if (from < 0 || from >= width) continue
      source.copy(out, (y * width + x) * 4, (y * width + from) * 4, (y * width + from) * 4 + 4)
    }
  }
  return sharp(out, { raw: { width, height, channels: 4 } })
    .png(QUICK)
    .toBuffer()
}

function busyTableSvg({ width, height }: Frame, seed: number): string {
  const chance = new Chance(seed * 7 + 3)
  const random = () => chance.next()
  const shapes = Array.from({ length: 90 }, () => {
    const colour = `hsl(${Math.round(random() * 360)} ${Math.round(random() * 70)}% ${Math.round(15 + random() * 75)}%)`
    const [x, y, w] = [random() * width, random() * height, 10 + random() * 150]
    return random() < 0.5
      ? `<rect x="${x}" y="${y}" width="${w}" height="${w * random()}" fill="${colour}" transform="rotate(${random() * 90} ${x} ${y})"/>`
      : `<g stroke="${colour}" stroke-width="${2 + random() * 5}">${[0, 1, 2, 3, 4].map((i) => `<path d="M${x} ${y + i * 9}h${w}"/>`).join('')}</g>`
  })
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${shapes.join('')}</svg>`
}

function lightSvg({ width, height }: Frame, { shadow, glare }: CardView): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}"><defs>
    <linearGradient id="s" x1="0" y1="0" x2="1" y2="0.5"><stop offset="0.3" stop-color="#000" stop-opacity="0"/><stop offset="0.75" stop-color="#000" stop-opacity="${shadow}"/></linearGradient>
    <radialGradient id="g" cx="0.6" cy="0.4" r="0.22"><stop offset="0" stop-color="#fff" stop-opacity="${glare}"/><stop offset="1" stop-color="#fff" stop-opacity="0"/></radialGradient></defs>
    <rect width="${width}" height="${height}" fill="url(#s)"/><rect width="${width}" height="${height}" fill="url(#g)"/></svg>`
}

function addNoise(pixels: Buffer, noise: number, seed: number): void {
  if (noise <= 0) return
  const chance = new Chance(seed + 99)
  for (let i = 0; i < pixels.length; i++) {
    const value = pixels[i]! + (chance.next() + chance.next() - 1) * noise * 255
    pixels[i] = value < 0 ? 0 : value > 255 ? 255 : value
  }
}
