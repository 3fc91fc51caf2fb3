import { LEAST_TRIM, type Trim } from '@nibquill/core'
import type { Point, Quad } from '@nibquill/core/tidy/projective'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import { View } from 'react-native'
import { colours, corners as radii } from '../kit/theme'
import { Handle } from './Handle'
import { t } from './words'

/** As the corners of a quad go round. */
const CORNERS = ['topLeft', 'topRight', 'bottomRight', 'bottomLeft'] as const

type Stage = { width: number; height: number }
/** Room around the picture, so that corners at its edge can be taken hold of. */
const MARGIN_PX = 30

/**
 * The picture as large as the place allows; what lies on it is placed in the picture's own pixels
 * on screen.
 */
export function TidyStage({
  picture,
  children,
}: {
  picture: ImageBitmap | null
  children?: (stage: Stage) => ReactNode
}) {
  const [room, setRoom] = useState<Stage | null>(null)
  const scale =
    picture && room
      ? Math.min(
          (room.width - 2 * MARGIN_PX) / picture.width,
          (room.height - 2 * MARGIN_PX) / picture.height,
        )
      : 0
  const stage =
    picture && scale > 0 ? { width: picture.width * scale, height: picture.height * scale } : null
  return (
    <View
      style={{
        flex: 1,
        minHeight: 200,
        backgroundColor: colours.desk,
        overflow: 'hidden',
        alignItems: 'center',
        justifyContent: 'center',
      }}
      onLayout={({ nativeEvent: { layout } }) =>
        setRoom({ width: layout.width, height: layout.height })
      }
    >
      {picture && stage ? (
        <div
          style={{
            position: 'relative',
            width: stage.width,
            height: stage.height,
            touchAction: 'none',
          }}
        >
          <Painted picture={picture} stage={stage} />
          {children?.(stage)}
        </div>
      ) : null}
    </View>
  )
}

function Painted({ picture, stage }: { picture: ImageBitmap; stage: Stage }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const context = canvas.current?.getContext('2d')
    if (context && picture.width > 0) context.drawImage(picture, 0, 0)
  }, [picture])
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={t('picture')}
      width={picture.width}
      height={picture.height}
      style={{
        ...stage,
        display: 'block',
        borderRadius: radii.sheet,
        boxShadow: '0 2px 10px rgba(43,33,24,0.25)',
      }}
    />
  )
}

type Draggable<T> = { stage: Stage; value: T; onStart: () => void; onMove: (value: T) => void }

/** The page's four corners over the photo, with a loupe where a finger hides what it points at. */
export function Corners({
  stage,
  value,
  onStart,
  onMove,
  picture,
}: Draggable<Quad> & { picture: ImageBitmap }) {
  const [held, setHeld] = useState<number | null>(null)
  const places = value.map(({ x, y }) => ({ x: x * stage.width, y: y * stage.height }))
  const outline = places.map(({ x, y }) => `${x},${y}`).join(' ')
  return (
    <>
      <svg
        aria-hidden
        width={stage.width}
        height={stage.height}
        style={{ position: 'absolute', inset: 0, overflow: 'visible', pointerEvents: 'none' }}
      >
        <path
          fillRule="evenodd"
          d={`M0 0 H${stage.width} V${stage.height} H0 z M${outline.replaceAll(' ', ' L')} z`}
          fill={colours.ink}
          opacity={0.42}
        />
        <polygon points={outline} fill="none" stroke={colours.sheet} strokeWidth={6} />
        <polygon points={outline} fill="none" stroke={colours.aubergine} strokeWidth={3} />
      </svg>
      {places.map((place, i) => (
        <Handle
          key={i}
          label={t(`corners.${CORNERS[i]!}`)}
          help={t('cornerHelp')}
          place={place}
          stage={stage}
          onStart={() => {
            setHeld(i)
            onStart()
          }}
          onMove={(share) =>
            onMove(value.map((corner, j) => (j === i ? within(share) : corner)) as Quad)
          }
          onEnd={() => setHeld(null)}
        />
      ))}
      {held === null ? null : <Loupe picture={picture} stage={stage} corner={value[held]!} />}
    </>
  )
}

/** A corner may lie a little outside. */
const within = ({ x, y }: Point): Point => ({ x: clamp(x, -0.08, 1.08), y: clamp(y, -0.08, 1.08) })
const clamp = (value: number, low: number, high: number) => Math.min(high, Math.max(low, value))

const LOUPE_PX = 132
const LOUPE_TIMES = 3

function Loupe({ picture, stage, corner }: { picture: ImageBitmap; stage: Stage; corner: Point }) {
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const context = canvas.current?.getContext('2d')
    if (!context) return
    const times = (stage.width / picture.width) * LOUPE_TIMES
    context.fillStyle = colours.ink
    context.fillRect(0, 0, LOUPE_PX, LOUPE_PX)
    context.setTransform(
      times,
      0,
      0,
      times,
      LOUPE_PX / 2 - corner.x * picture.width * times,
      LOUPE_PX / 2 - corner.y * picture.height * times,
    )
    context.drawImage(picture, 0, 0)
    context.setTransform(1, 0, 0, 1, 0, 0)
  }, [picture, stage, corner])
  // On the side where the finger is not.
  const side = corner.x < 0.5 ? { right: 0 } : { left: 0 }
  return (
    <div
      aria-hidden
      style={{
        position: 'absolute',
        top: 0,
        ...side,
        width: LOUPE_PX,
        height: LOUPE_PX,
        borderRadius: LOUPE_PX,
        overflow: 'hidden',
        border: `4px solid ${colours.sheet}`,
        boxShadow: '0 2px 12px rgba(0,0,0,0.5)',
        pointerEvents: 'none',
      }}
    >
      <canvas ref={canvas} width={LOUPE_PX} height={LOUPE_PX} />
      <svg width={LOUPE_PX} height={LOUPE_PX} style={{ position: 'absolute', inset: 0 }}>
        <path
          d={`M${LOUPE_PX / 2} 30 V${LOUPE_PX - 30} M30 ${LOUPE_PX / 2} H${LOUPE_PX - 30}`}
          stroke={colours.aubergine}
          strokeWidth={2}
        />
      </svg>
    </div>
  )
}

/** What stays, over the turned picture. */
export function TrimFrame({ stage, value, onStart, onMove }: Draggable<Trim>) {
  const { left, top, right, bottom } = value
  const [x0, y0, x1, y1] = [
    left * stage.width,
    top * stage.height,
    right * stage.width,
    bottom * stage.height,
  ]
  const corner = (i: number, { x, y }: Point): Trim => ({
    left: i === 0 || i === 3 ? clamp(x, 0, right - LEAST_TRIM) : left,
    right: i === 1 || i === 2 ? clamp(x, left + LEAST_TRIM, 1) : right,
    top: i < 2 ? clamp(y, 0, bottom - LEAST_TRIM) : top,
    bottom: i >= 2 ? clamp(y, top + LEAST_TRIM, 1) : bottom,
  })
  return (
    <>
      <svg
        aria-hidden
        width={stage.width}
        height={stage.height}
        style={{ position: 'absolute', inset: 0, pointerEvents: 'none' }}
      >
        <path
          fillRule="evenodd"
          d={`M0 0 H${stage.width} V${stage.height} H0 z M${x0} ${y0} H${x1} V${y1} H${x0} z`}
          fill={colours.ink}
          opacity={0.55}
        />
        <rect
          x={x0}
          y={y0}
          width={x1 - x0}
          height={y1 - y0}
          fill="none"
          stroke={colours.sheet}
          strokeWidth={3}
        />
      </svg>
      {[
        { x: x0, y: y0 },
        { x: x1, y: y0 },
        { x: x1, y: y1 },
        { x: x0, y: y1 },
      ].map((place, i) => (
        <Handle
          key={i}
          label={t(`trimCorners.${CORNERS[i]!}`)}
          help={t('cornerHelp')}
          place={place}
          stage={stage}
          onStart={onStart}
          onMove={(share) => onMove(corner(i, share))}
          onEnd={() => undefined}
        />
      ))}
    </>
  )
}
