import { useSyncExternalStore } from 'react'
import Svg, { Path } from 'react-native-svg'
import { SYMBOLS } from './symbols.generated'
import { colours } from './theme'
import { getThings, subscribeThings, type ThingName } from './things'

export type SymbolName = keyof typeof SYMBOLS | ThingName

type SymbolProps<Name> = { name: Name; size?: number; colour?: string }

/** A drawn sign; always beside a word or inside something that has a name. */
export function DrawnSymbol({ name, ...look }: SymbolProps<SymbolName>) {
  return isOfInterface(name) ? (
    <Drawing {...look} path={SYMBOLS[name]} />
  ) : (
    <Thing {...look} name={name} />
  )
}

const isOfInterface = (name: SymbolName): name is keyof typeof SYMBOLS => name in SYMBOLS

function Thing({ name, ...look }: SymbolProps<ThingName>) {
  const things = useSyncExternalStore(subscribeThings, getThings)
  return <Drawing {...look} path={things?.[name]} />
}

/** @param path - Undefined while it is on its way: its room is kept. */
function Drawing({
  path,
  size = 24,
  colour = colours.ink,
}: {
  path: string | undefined
  size?: number
  colour?: string
}) {
  return (
    <Svg width={size} height={size} viewBox="0 0 24 24" aria-hidden>
      {path ? <Path d={path} fill={colour} /> : null}
    </Svg>
  )
}
