import fc from 'fast-check'
import { joinStretches, latin, sourceOf } from './bytes.ts'
import { crc32 } from './cleanPng.ts'
import { readOrientation, writeOrientation } from './orientation.ts'
import { MEDIA } from './kinds.ts'
import { removeTraces as tracesOut, type PictureType } from './removeTraces.ts'

/** The same for a file in memory. */
function removeTraces(bytes: Uint8Array, type: PictureType) {
  const { kept, orientation } = tracesOut(sourceOf(bytes), type)
  return { bytes: joinStretches(sourceOf(bytes), kept), orientation }
}

const text = (value: string) => [...value].map((c) => c.charCodeAt(0))
const segment = (marker: number, data: number[]) => [
  0xff,
  marker,
  (data.length + 2) >> 8,
  (data.length + 2) & 0xff,
  ...data,
]
const holds = (bytes: Uint8Array, word: string) => latin(bytes, 0, bytes.length).includes(word)

const SCAN = [0x11, 0xff, 0x00, 0x22, 0xff, 0xd0, 0x33]
const jpeg = (...segments: number[][]) =>
  Uint8Array.from([
    0xff,
    0xd8,
    ...segments.flat(),
    ...segment(0xda, [1, 2, 3]),
    ...SCAN,
    0xff,
    0xd9,
  ])
const exif = (orientation: number) =>
  segment(0xe1, [...text('Exif\0\0'), ...writeOrientation(orientation), ...text('GPS here')])

describe('JPEG', () => {
  test('loses Exif, XMP, comments and foreign segments, keeps profile, tables and the coded picture', () => {
    const photo = jpeg(
      segment(0xe0, text('JFIF\0')),
      exif(1),
      segment(0xe1, text('http://ns.adobe.com/xap/1.0/\0position')),
      segment(0xe2, [...text('ICC_PROFILE\0'), 1, 1, 9]),
      segment(0xe2, text('MPF\0second picture')),
      segment(0xed, text('Photoshop 3.0\0place')),
      segment(0xfe, text('made by')),
      segment(0xdb, [0, 1, 2]),
    )
    const clean = removeTraces(photo, 'image/jpeg')
    expect([...clean.bytes]).toEqual([
      0xff,
      0xd8,
      ...segment(0xe2, [...text('ICC_PROFILE\0'), 1, 1, 9]),
      ...segment(0xdb, [0, 1, 2]),
      ...segment(0xda, [1, 2, 3]),
      ...SCAN,
      0xff,
      0xd9,
    ])
  })

  test('keeps which way up it is, and nothing else of Exif', () => {
    const clean = removeTraces(jpeg(exif(6)), 'image/jpeg')
    expect(clean.orientation).toBe(6)
    expect(holds(clean.bytes, 'GPS')).toBe(false)
    expect(removeTraces(clean.bytes, 'image/jpeg').orientation).toBe(6)
  })

  test('loses what hangs behind the end, such as a second picture or a clip', () => {
    const clean = removeTraces(
      Uint8Array.from([...jpeg(), ...text('hidden clip with position')]),
      'image/jpeg',
    )
    expect(holds(clean.bytes, 'hidden')).toBe(false)
  })

  test('a picture cut off half-way gets its end mark', () => {
    const whole = jpeg(segment(0xdb, [0]))
    const clean = removeTraces(whole.slice(0, -4), 'image/jpeg')
    expect([...clean.bytes.slice(-2)]).toEqual([0xff, 0xd9])
  })
})

test('PNG loses text, time and Exif but keeps which way up it is', () => {
  const chunk = (name: string, data: number[]) => {
    const crc = crc32(Uint8Array.from([...text(name), ...data]))
    return [
      0,
      0,
      0,
      data.length,
      ...text(name),
      ...data,
      crc >>> 24,
      (crc >> 16) & 255,
      (crc >> 8) & 255,
      crc & 255,
    ]
  }
  const png = (...chunks: number[][]) =>
    Uint8Array.from([0x89, ...text('PNG\r\n\x1a\n'), ...chunks.flat()])
  const picture = [chunk('IHDR', [1, 2, 3]), chunk('IDAT', [4, 5, 6]), chunk('IEND', [])] as const
  const dirty = png(
    picture[0],
    chunk('tEXt', text('GPS')),
    chunk('tIME', [1]),
    picture[1],
    picture[2],
    text('behind'),
  )
  expect(removeTraces(dirty, 'image/png').bytes).toEqual(png(...picture))
  const turned = png(
    picture[0],
    chunk('eXIf', [...writeOrientation(8), ...text('GPS')]),
    picture[1],
    picture[2],
  )
  expect(removeTraces(turned, 'image/png').bytes).toEqual(
    png(picture[0], chunk('eXIf', [...writeOrientation(8)]), picture[1], picture[2]),
  )
})

test('WebP loses Exif and XMP and says so in its header', () => {
  const chunk = (name: string, data: number[]) => [
    ...text(name),
    data.length,
    0,
    0,
    0,
    ...data,
    ...(data.length % 2 ? [0] : []),
  ]
  const webp = (...chunks: number[][]) =>
    Uint8Array.from([
      ...text('RIFF'),
      chunks.flat().length + 4,
      0,
      0,
      0,
      ...text('WEBP'),
      ...chunks.flat(),
    ])
  const header = (flags: number) => chunk('VP8X', [flags, 0, 0, 0, 1, 0, 0, 1, 0, 0])
  const picture = chunk('VP8 ', [1, 2, 3])
  expect(
    removeTraces(webp(header(0x0c), picture, chunk('XMP ', text('GPS'))), 'image/webp').bytes,
  ).toEqual(webp(header(0), picture))
  const turned = removeTraces(
    webp(header(8), picture, chunk('EXIF', [...text('Exif\0\0'), ...writeOrientation(3), 71, 80])),
    'image/webp',
  )
  expect(turned.bytes).toEqual(webp(header(8), picture, chunk('EXIF', [...writeOrientation(3)])))
})

test('GIF loses comments and foreign data, keeps frames and looping', () => {
  const head = [...text('GIF89a'), 1, 0, 1, 0, 0x80, 0, 0, 1, 2, 3, 4, 5, 6]
  const loop = [0x21, 0xff, 11, ...text('NETSCAPE2.0'), 3, 1, 0, 0, 0]
  const frame = [0x21, 0xf9, 4, 0, 0, 0, 0, 0, 0x2c, 0, 0, 0, 0, 1, 0, 1, 0, 0, 2, 2, 0x44, 1, 0]
  const xmp = [0x21, 0xff, 11, ...text('XMP DataXMP'), 3, ...text('GPS'), 0]
  const dirty = Uint8Array.from([
    ...head,
    ...loop,
    0x21,
    0xfe,
    3,
    ...text('GPS'),
    0,
    ...xmp,
    ...frame,
    0x3b,
    ...text('behind'),
  ])
  expect([...removeTraces(dirty, 'image/gif').bytes]).toEqual([...head, ...loop, ...frame, 0x3b])
})

test('damaged files of every type are read to their end and no further', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...(Object.keys(MEDIA.picture.types) as PictureType[])),
      fc.uint8Array({ minLength: 16, maxLength: 400 }),
      (type, bytes) => {
        expect(removeTraces(bytes, type).bytes.length).toBeLessThanOrEqual(bytes.length + 64)
      },
    ),
  )
})

test('orientation survives being written and read, in either byte order', () => {
  for (let orientation = 1; orientation <= 8; orientation++)
    expect(readOrientation(writeOrientation(orientation))).toBe(orientation)
  // Little-endian, as most phones write it: II, 42, offset 8, one entry (0x0112, SHORT, 1, 6).
  expect(
    readOrientation(
      Uint8Array.from([0x49, 0x49, 42, 0, 8, 0, 0, 0, 1, 0, 0x12, 1, 3, 0, 1, 0, 0, 0, 6, 0, 0, 0]),
    ),
  ).toBe(6)
})

test('a picture without traces stays one stretch; one made of crumbs is refused before it fills the memory', () => {
  const clean = jpeg(segment(0xdb, [0, 1, 2]))
  expect(tracesOut(sourceOf(clean), 'image/jpeg').kept).toEqual([{ from: 0, to: clean.length }])
  const crumbs = jpeg(
    ...Array.from({ length: 10_001 }, () => [...segment(0xdb, [0]), ...segment(0xfe, [0])]),
  )
  expect(() => removeTraces(crumbs, 'image/jpeg')).toThrow('This picture is damaged')
})

test('the end of coded data is found wherever it lies, also across two readings', () => {
  for (const length of [65_533, 65_534, 65_535, 65_536, 65_537]) {
    const scan = Array.from({ length }, (_, i) => (i % 200 === 0 ? 0xff : i % 200 === 1 ? 0 : 7))
    const whole = [0xff, 0xd8, ...segment(0xda, [1]), ...scan, 0xff, 0xd9]
    const behind = Uint8Array.from([...whole, ...text('behind')])
    expect(Buffer.compare(removeTraces(behind, 'image/jpeg').bytes, Uint8Array.from(whole))).toBe(0)
  }
})
