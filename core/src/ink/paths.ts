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
 * A path around (0, 0) as it lies once turned and put down.
 * @param path - SVG path data of M, L, Q, C, A and Z in whole units, nothing left out.
 */
export function placePath(path: string, at: At, turn: number): string {
  return path.replace(/([MLQCA])([^MLQCAZ]*)/g, (_all, command: string, numbers: string) => {
    const values = numbers.trim().split(/[ ,]+/).map(Number)
    if (command === 'A') {
      const [rx, ry, tilt, large, sweep, x, y] = values as [
        number,
        number,
        number,
        number,
        number,
        number,
        number,
      ]
      const end = around({ x, y }, at, turn)
      return `A${rx} ${ry} ${(tilt + turn) % 360} ${large} ${sweep} ${end.x} ${end.y}`
    }
    const points = Array.from({ length: values.length / 2 }, (_, i) =>
      around({ x: values[2 * i]!, y: values[2 * i + 1]! }, at, turn),
    )
    return command + points.map(({ x, y }) => `${x} ${y}`).join(' ')
  })
}

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
