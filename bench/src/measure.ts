/**
 * One line of the table. `ratio` is value against floor in the unit's better direction as the goal
 * is stated.
 */
export type Line = {
  name: string
  value: number
  floor: number
  unit: string
  ratio: number
  goal: string
  met: boolean
}

export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!

/**
 * Takes value and floor in turn, so that whatever else the machine does falls on both.
 * @returns the medians, in ms
 */
export async function inTurn(
  rounds: number,
  value: () => Promise<unknown>,
  floor: () => Promise<unknown>,
): Promise<{ value: number; floor: number }> {
  const times = { value: [] as number[], floor: [] as number[] }
  for (let round = 0; round < rounds; round++) {
    times.value.push(await timeMs(value))
    times.floor.push(await timeMs(floor))
  }
  return { value: median(times.value), floor: median(times.floor) }
}

export async function timeMs(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now()
  await work()
  return performance.now() - start
}

export const line = (
  name: string,
  value: number,
  floor: number,
  unit: string,
  compare: '<=' | '>=',
  goal: number,
): Line => {
  const ratio = value / floor
  return {
    name,
    value: round(value),
    floor: round(floor),
    unit,
    ratio: round(ratio),
    goal: `${compare} ${goal}`,
    met: compare === '<=' ? ratio <= goal : ratio >= goal,
  }
}
const round = (number: number) => Number(number.toPrecision(4))
