import type { MediaForm, PictureSize } from '@nibquill/core'
import { useEffect, useState, type CSSProperties, type ReactNode } from 'react'
import { View, type ViewStyle } from 'react-native'
import { Text } from 'react-native-paper'
import {
  TransformComponent,
  TransformWrapper,
  type ReactZoomPanPinchContentRef,
} from 'react-zoom-pan-pinch'
import { mediaAddress, type Readable } from '../media/mediaAddress'
import { usePictureTrouble } from '../media/usePictureTrouble'
import { RoundButton } from '../kit/RoundButton'
import { useTargetPx } from '../kit/forPupil'
import { colours, corners } from '../kit/theme'
import { t } from './words'
import { Bar } from '../kit/layout'

/**
 * A picture as large as the place allows. At its own size a swipe over it scrolls the page; two
 * fingers, ctrl and the wheel, keys or the buttons below make it larger, and then one finger moves
 * it. The 2048 px picture is shown first; going closer brings the full one.
 * @param fullIsPicture - Whether the file itself can be looked at, beyond what was made of it.
 */
export function PictureStage({
  file,
  link,
  alt,
  fullIsPicture,
  form = 2048,
  children,
}: {
  file: Readable
  /** What is shown of it. */
  form?: MediaForm | PictureSize
  alt: string
  link?: string
  fullIsPicture: boolean
  /** Shown in place of what was made of the file. */
  children?: ReactNode
}) {
  const [enlarged, setEnlarged] = useState(false)
  const standIn = mediaAddress(file, form, link)
  const near = useFullOnceClose(mediaAddress(file, 'full', link), enlarged && fullIsPicture)
  const trouble = usePictureTrouble(standIn)
  if (trouble.words) return <NoPicture words={trouble.words} />
  return (
    <TransformWrapper
      minScale={1}
      maxScale={10}
      panning={{ disabled: !enlarged }}
      wheel={{ wheelDisabled: !enlarged }}
      onTransformed={(_, { scale }) => setEnlarged(scale > 1.02)}
      doubleClick={{ mode: 'toggle', step: 1.2 }}
    >
      {(viewer) => (
        <div
          style={{ flex: 1, display: 'flex', flexDirection: 'column', minHeight: 220, gap: 4 }}
          tabIndex={0}
          role="group"
          aria-label={alt}
          onKeyDown={(event) => {
            if (!moveBy(viewer, event.key)) return
            event.preventDefault()
            event.stopPropagation()
          }}
        >
          <View style={STAGE}>
            <TransformComponent
              wrapperStyle={{ ...FILLS, touchAction: enlarged ? 'none' : 'pan-x pan-y' }}
              contentStyle={FILLS}
            >
              {children ? (
                <div style={{ ...FILLS, ...WHOLE }}>{children}</div>
              ) : (
                <img
                  src={near ?? standIn}
                  alt={alt}
                  draggable={false}
                  onError={trouble.look}
                  style={{ ...FILLS, ...WHOLE }}
                />
              )}
            </TransformComponent>
          </View>
          <ZoomButtons viewer={viewer} />
        </div>
      )}
    </TransformWrapper>
  )
}

const STAGE: ViewStyle = {
  flex: 1,
  backgroundColor: colours.desk,
  borderRadius: corners.button,
  overflow: 'hidden',
}
const FILLS: CSSProperties = { width: '100%', height: '100%' }
const WHOLE: CSSProperties = {
  objectFit: 'contain',
  padding: 10,
  boxSizing: 'border-box',
  pointerEvents: 'auto',
}

/** The full picture's address once it is there: going closer never blanks what is shown. */
function useFullOnceClose(full: string, enlarged: boolean): string | null {
  const [near, setNear] = useState<string | null>(null)
  useEffect(() => {
    if (!enlarged) return
    const picture = new window.Image()
    picture.onload = () => setNear(picture.src)
    picture.src = full
  }, [enlarged, full])
  return near
}

function NoPicture({ words }: { words: string }) {
  return (
    <View
      style={{
        flex: 1,
        alignItems: 'center',
        justifyContent: 'center',
        backgroundColor: colours.desk,
        borderRadius: corners.button,
      }}
    >
      <Text variant="bodyLarge">{words}</Text>
    </View>
  )
}

/** Moves or zooms by a key. @returns whether the key means anything here */
function moveBy(viewer: ReactZoomPanPinchContentRef, key: string): boolean {
  const { positionX, positionY, scale } = viewer.instance.transformState
  const by = { ArrowLeft: [80, 0], ArrowRight: [-80, 0], ArrowUp: [0, 80], ArrowDown: [0, -80] }[
    key
  ]
  if (by) viewer.setTransform(positionX + by[0]!, positionY + by[1]!, scale, 120)
  else if (key === '+' || key === '=') viewer.zoomIn()
  else if (key === '-') viewer.zoomOut()
  else if (key === '0') viewer.resetTransform()
  else return false
  return true
}

/** Below the picture: a child's own words may stand in its corner. */
function ZoomButtons({ viewer }: { viewer: ReactZoomPanPinchContentRef }) {
  const size = useTargetPx()
  return (
    <Bar gap="tight" style={{ justifyContent: 'flex-end' }}>
      <RoundButton
        label={t('zoomOut')}
        symbol="zoom-out"
        size={size}
        onPress={() => viewer.zoomOut()}
      />
      <RoundButton
        label={t('fit')}
        symbol="fit"
        size={size}
        onPress={() => viewer.resetTransform()}
      />
      <RoundButton label={t('zoomIn')} symbol="zoom" size={size} onPress={() => viewer.zoomIn()} />
    </Bar>
  )
}
