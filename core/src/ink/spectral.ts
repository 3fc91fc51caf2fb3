// @ts-expect-error It brings no types of its own; what we use of it is said below.
import untyped from 'spectral.js'

type Colour = { toString(): string }
/** What we use of spectral.js 3.0.0. */
type Spectral = {
  Color: new (hex: string) => Colour
  mix: (...parts: (readonly [Colour, number])[]) => Colour
}
const spectral = untyped as Spectral

/**
 * The colour of so much of each of several pigments.
 * @param parts - `#RRGGBB`, and how much of it.
 * @returns `#RRGGBB`
 */
export const mixPigments = (parts: readonly (readonly [hex: string, amount: number])[]): string =>
  spectral
    .mix(...parts.map(([hex, amount]) => [new spectral.Color(hex), amount] as const))
    .toString()
