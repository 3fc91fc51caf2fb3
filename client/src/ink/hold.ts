import { NIB_WIDTHS, UNITS_PER_MM, type Pen, type Ruled } from '@nibquill/core/ink/document'

/** What lies in the pen roll. */
export const TOOLS = ['nib', 'patch', 'ruler', 'rubber'] as const
export type Tool = (typeof TOOLS)[number]

/** What a pupil holds, and what they would hold next of each. */
export type Hold = {
  tool: Tool
  /** Of the five widths of the nib; the ruler draws with the same. */
  nib: number
  ink: Pen['ink']
  water: Pen['water']
  edge: Pen['edge']
  ruled: Ruled['shape']
  /** Of {@link RUBBERS}. */
  rubber: number
}
export const FIRST_HOLD: Hold = {
  ...{ tool: 'nib', nib: 2, ink: ['soot'], water: 0, edge: null, ruled: 'line', rubber: 1 },
}

/** How far a rubber reaches from its middle. */
export const RUBBERS = [2, 4, 8].map((mm) => mm * UNITS_PER_MM)

export const penOf = ({ nib, ink, water, edge }: Hold): Pen => ({
  ...{ ink, water, edge },
  width: NIB_WIDTHS[nib]!,
})
