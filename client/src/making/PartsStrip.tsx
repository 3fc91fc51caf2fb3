import type { Part } from '@nibquill/contract'
import { router } from 'expo-router'
import { useRef, type CSSProperties, type KeyboardEvent, type ReactNode, type Ref } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { OrderedList, type Grip } from '../kit/dragging'
import { Bar } from '../kit/layout'
import { useJustAppeared } from '../kit/lastTap'
import { RoundButton } from '../kit/RoundButton'
import { toast } from '../kit/Toast'
import { colours, corners, space } from '../kit/theme'
import { useWaiting } from '../outbox/OutboxContext'
import { partStanding, type PartStanding } from '../outbox/partStanding'
import { usePieceWork } from '../pieces'
import { lookOf, nameOf } from '../parts/partKinds'
import { PartView } from '../parts/PartView'
import { OnItsWay, TroubleOnTheWay } from '../parts/OnItsWay'
import { t } from './words'

/** A sheet lies across. */
const SHEET_SHAPE = 0.76

type StripProps = {
  pieceId: string
  parts: Part[]
  open?: boolean
  /** In one line, to be scrolled sideways; what can be done to a part waits behind it. */
  row?: boolean
  tilePx?: number
}

/**
 * What a piece is made of, and what is still on its way to it: tapped, it opens; dragged, it moves.
 */
export function PartsStrip({ pieceId, parts, open = true, row = false, tilePx = 156 }: StripProps) {
  const waiting = useWaiting(pieceId)
  const work = usePieceWork(pieceId)
  const ids = parts.map(({ id }) => id)
  const indexOf = (id: string) => ids.indexOf(id)
  const nameFor = (id: string) => nameOf(parts[indexOf(id)]!, indexOf(id))
  const takeOut = async (part: Part) => {
    await work.takeOut(part)
    toast(t('removed'), { undo: () => void work.putBack(part.id) })
  }
  const show = (partId: string, way: '' | '/tidy' = '') =>
    router.push(`/my-pieces/${pieceId}/parts/${partId}${way}`)
  return (
    <OrderedList
      ids={ids}
      nameOf={nameFor}
      label={t('partsSoFar')}
      layout={row ? 'row' : 'wrap'}
      still={!open}
      onOrder={(next) => void work.order(next)}
    >
      {(id, grip) => {
        const part = parts[indexOf(id)]!
        const name = nameFor(id)
        return (
          <View style={{ width: tilePx }}>
            <PartTile
              name={name}
              grip={grip}
              tilePx={tilePx}
              onOpen={() => show(id)}
              place={indexOf(id) + 1}
              standing={partStanding(waiting, id)}
            >
              <PartView view={tilePx > 320 ? 'cover' : 'tile'} part={part} alt="" />
            </PartTile>
            {open && !row ? (
              <Bar between gap="none">
                {lookOf(part).canTidy ? (
                  <RoundButton
                    label={t('tidyPart', { name })}
                    symbol="tidy"
                    colour={colours.aubergine}
                    onPress={() => show(id, '/tidy')}
                  />
                ) : (
                  <View />
                )}
                <RoundButton
                  label={t('remove', { name })}
                  symbol="bin"
                  colour={colours.inkSoft}
                  onPress={() => void takeOut(part)}
                />
              </Bar>
            ) : null}
          </View>
        )
      }}
    </OrderedList>
  )
}

type TileProps = {
  name: string
  grip: Grip
  tilePx: number
  place: number
  onOpen: () => void
  /** Null once it is at school. */
  standing: PartStanding | null
  children: ReactNode
}

function PartTile({ name, grip, tilePx, place, onOpen, standing, children }: TileProps) {
  const tile = useRef<HTMLDivElement>(null)
  const early = useJustAppeared(tile)
  return (
    <>
      <div ref={tile} style={{ position: 'relative' }}>
        <div
          {...grip}
          ref={grip.ref as Ref<HTMLDivElement>}
          role="button"
          aria-label={t('open', { name })}
          onClick={() => early || onOpen()}
          onKeyDown={(event: KeyboardEvent<HTMLElement>) => {
            if (event.key === 'Enter') onOpen()
            else grip.onKeyDown?.(event)
          }}
          style={{ ...TILE, width: tilePx, height: tilePx * SHEET_SHAPE }}
        >
          {children}
        </div>
        <View aria-hidden style={PLACE}>
          <Text variant="labelSmall">{place}</Text>
        </View>
        {standing ? <OnItsWay name={name} standing={standing} /> : null}
      </div>
      {standing ? <TroubleOnTheWay name={name} standing={standing} /> : null}
    </>
  )
}

const TILE: CSSProperties = {
  ...{ display: 'flex', flexDirection: 'column' },
  borderRadius: corners.sheet,
  overflow: 'hidden',
  backgroundColor: colours.desk,
  border: `1px solid ${colours.rule}`,
  boxSizing: 'border-box',
  cursor: 'pointer',
  touchAction: 'manipulation',
}
const PLACE = {
  position: 'absolute',
  left: 5,
  top: 5,
  minWidth: 26,
  borderRadius: 13,
  backgroundColor: 'rgba(255,255,255,0.94)',
  alignItems: 'center',
  paddingHorizontal: space.close,
  pointerEvents: 'none',
} as const
