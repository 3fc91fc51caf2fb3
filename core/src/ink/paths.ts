import type { At } from './document.ts'

const around = ({ x, y }: At, at: At, turn: number): At => {
  const radians = (turn * Math.PI) / 180
  return {
    x: Math.round(at.x + x * Math.cos(radians) - y * Math.sin(radians)),
    y: Math.round(at.y + x * Math.sin(radians) + y * Math.cos(radians)),
  }
}

/**
 * A place as it lies once what it belongs to is turned and put down. @param turn - Degrees, with the
 * clock.
 */
export const putDown = around

/** Where a place lay before that. */
export function pickedUp(place: At, at: At, turn: number): At {
  return around({ x: place.x - at.x, y: place.y - at.y }, { x: 0, y: 0 }, -turn)
}

/**
 * A path with each of its places, and each of its bows, as they are made to be.
 * @param path - SVG path data of M, L, Q, C, A and Z in whole units, nothing left out.
 * @param bow - What becomes of a bow's radii and its tilt.
 */
export function mapPath(
  path: string,
  place: (at: At) => At,
  bow: (rx: number, ry: number, tilt: number) => readonly [rx: number, ry: number, tilt: number],
): string {
  return path.replace(/([MLQCA])([^MLQCAZ]*)/g, (_all, command: string, numbers: string) => {
    const values = numbers.trim().split(/[ ,]+/).map(Number)
    if (command === 'A') {
      const [rx, ry, tilt, ...flags] = values.slice(0, 5)
      return `A${[...bow(rx!, ry!, tilt!), ...flags].join(' ')} ${say(place(placeAt(values, 5)))}`
    }
    const points = Array.from({ length: values.length / 2 }, (_, i) =>
      place(placeAt(values, 2 * i)),
    )
    return command + points.map(say).join(' ')
  })
}
const placeAt = (values: readonly number[], i: number): At => ({ x: values[i]!, y: values[i + 1]! })

/** A path around (0, 0) as it lies once turned and put down. */
export const placePath = (path: string, at: At, turn: number): string =>
  mapPath(
    path,
    (place) => around(place, at, turn),
    (rx, ry, tilt) => [rx, ry, (tilt + turn) % 360],
  )

const say = ({ x, y }: At) => `${Math.round(x)} ${Math.round(y)}`
/** Straight from corner to corner, and back to the first. */
export const ringOf = (corners: readonly At[]): string => `M${corners.map(say).join('L')}Z`
/** Straight along, not back. */
export const wayOf = (points: readonly At[]): string => `M${points.map(say).join('L')}`
export const boxOf = (left: number, top: number, width: number, height: number): string =>
  ringOf([
    { x: left, y: top },
    { x: left + width, y: top },
    { x: left + width, y: top + height },
    { x: left, y: top + height },
  ])
export function roundOf({ x, y }: At, rx: number, ry = rx): string {
  const radii = `${Math.round(rx)} ${Math.round(ry)}`
  const half = (to: number) => `A${radii} 0 1 1 ${say({ x: to, y })}`
  return `M${say({ x: x - rx, y })}${half(x + rx)}${half(x - rx)}Z`
}
/** Corners of a regular shape, the first of them up. */
export const regular = (corners: number, rx: number, ry: number): At[] =>
  Array.from({ length: corners }, (_, i) => {
    const turn = (2 * Math.PI * i) / corners
    return { x: rx * Math.sin(turn), y: -ry * Math.cos(turn) }
  })
