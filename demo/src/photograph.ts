import sharp from 'sharp'
import type { Chance } from './chance.ts'
import { DRAWINGS, type DrawingName } from './drawings/index.ts'

const WIDTH = 1200
const HEIGHT = 900
const PAPERS = {
  plain: '',
  ruled: `${Array.from({ length: 8 }, (_, i) => `<path d="M0 ${75 + i * 90} H1000" stroke="#a9c3dc" stroke-width="3"/>`).join('')}<path d="M120 0 V720" stroke="#e0a5a5" stroke-width="4"/>`,
  squared: `<path d="${Array.from({ length: 20 }, (_, i) => `M${i * 52} 0 V720 M0 ${i * 52} H1000`).join(' ')}" stroke="#c9d3e6" stroke-width="2" fill="none"/>`,
} as const

let grain: Promise<Buffer> | null = null
/** Paper fibres and sensor noise: the same sheet of noise over every photo, laid differently. */
function makeGrain(): Promise<Buffer> {
  grain ??= sharp({
    create: {
      width: WIDTH,
      height: HEIGHT,
      channels: 3,
      background: '#808080',
      noise: { type: 'gaussian', mean: 128, sigma: 9 },
    },
  })
    .png({ compressionLevel: 1 })
    .toBuffer()
  return grain
}

/**
 * A child's work as a tablet's camera sees it on a school table: tilted, unevenly lit, a little
 * soft, on wood.
 * @param work - What the child made of it, and the table it lies on.
 * @param chance - How it was held before the camera: several photos show one work.
 * @param goneNearer - 0 for the whole of it, more for a part.
 * @returns A JPEG of 1200 x 900, as made by no particular camera.
 */
export async function photograph(
  name: DrawingName,
  work: Chance,
  chance = work,
  goneNearer = 0,
): Promise<Buffer> {
  const { paper, content } = DRAWINGS[name](work)
  const wood = work.pick(['#a8825a', '#9a7650', '#b08d66', '#8d6f52'])
  const sheet = work.pick(['#f6f1e6', '#f3efe6', '#f8f4ea', '#efeade'])
  const tilt = chance.between(-4.5, 4.5)
  const scale = chance.between(0.99, 1.08) * (1 + goneNearer * 0.35)
  const aside = 25 + goneNearer * 110
  const lightX = chance.between(15, 85)
  const lightY = chance.between(5, 45)
  const planks = Array.from(
    { length: 6 },
    (_, i) => `<rect x="0" y="${i * 160}" width="${WIDTH}" height="3" fill="#000" opacity="0.18"/>`,
  ).join('')
  const veins = Array.from({ length: 26 }, () => {
    const y = chance.between(0, HEIGHT)
    return `<path d="M0 ${y} q300 ${chance.between(-14, 14)} 600 0 t600 0" stroke="#5d4025" stroke-opacity="${chance.between(0.05, 0.16).toFixed(2)}" stroke-width="${chance.between(1, 4).toFixed(1)}" fill="none"/>`
  }).join('')
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}">
    <defs><radialGradient id="light" cx="${lightX}%" cy="${lightY}%" r="95%"><stop offset="0" stop-color="#fff6e0" stop-opacity="0.34"/><stop offset="0.45" stop-color="#fff" stop-opacity="0"/><stop offset="1" stop-color="#1c1208" stop-opacity="0.46"/></radialGradient>
    <clipPath id="sheet"><rect width="1000" height="720" rx="4"/></clipPath></defs>
    <rect width="100%" height="100%" fill="${wood}"/>${veins}${planks}
    <g transform="translate(${WIDTH / 2 + chance.between(-aside, aside)} ${HEIGHT / 2 + 0.8 * chance.between(-aside, aside)}) rotate(${tilt}) scale(${scale}) translate(-500 -360)">
      <rect x="10" y="14" width="1000" height="720" rx="6" fill="#000" opacity="0.28"/><g clip-path="url(#sheet)"><rect width="1000" height="720" fill="${sheet}"/>${PAPERS[paper]}${content}</g>
    </g><rect width="100%" height="100%" fill="url(#light)"/></svg>`
  return sharp(Buffer.from(svg))
    .removeAlpha()
    .composite([{ input: await makeGrain(), blend: 'soft-light' }])
    .blur(0.6)
    .jpeg({ quality: 84 })
    .toBuffer()
}
