import type { PhotoPart } from '@nibquill/contract'
import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import {
  TransformComponent,
  TransformWrapper,
  type ReactZoomPanPinchContentRef,
} from 'react-zoom-pan-pinch'
import { mediaAddress } from '../media/mediaAddress'
import { usePictureTrouble } from '../media/usePictureTrouble'
import { RoundButton } from '../kit/RoundButton'
import { colours, corners, targets } from '../kit/theme'
import type { PartViewProps } from './partKinds'
import { strings } from './strings'

/**
 * A photo as large as the place allows: pinch, wheel or buttons make it larger, drag or arrow keys
 * move it. The 2048 px picture is shown first; going closer brings the full one.
 */
export function PhotoStage({ part, link, alt }: PartViewProps<PhotoPart>) {
  const file = part.files.picture
  const [close, setClose] = useState(false)
  const [near, setNear] = useState<string | null>(null)
  const standIn = mediaAddress(file, 2048, link)
  const trouble = usePictureTrouble(standIn)
  useEffect(() => {
    if (!close) return
    // Shown only once it is there, so that going closer never blanks the picture.
    const full = new window.Image()
    full.onload = () => setNear(full.src)
    full.src = mediaAddress(file, 'full', link)
  }, [close, file, link])
  if (trouble.words) return <NoPicture words={trouble.words} />
  return (
    <View
      style={{
        flex: 1,
        minHeight: 220,
        backgroundColor: colours.desk,
        borderRadius: corners.button,
        overflow: 'hidden',
      }}
    >
      <TransformWrapper
        minScale={1}
        maxScale={10}
        onTransformed={(_, { scale }) => scale > 1.2 && setClose(true)}
        doubleClick={{ mode: 'toggle', step: 1.2 }}
      >
        {(viewer) => (
          <div
            style={{ position: 'absolute', inset: 0 }}
            tabIndex={0}
            role="group"
            aria-label={alt}
            onKeyDown={(event) => {
              if (!moveBy(viewer, event.key)) return
              event.preventDefault()
              event.stopPropagation()
            }}
          >
            <TransformComponent
              wrapperStyle={{ width: '100%', height: '100%' }}
              contentStyle={{ width: '100%', height: '100%' }}
            >
              <img
                src={near ?? standIn}
                alt={alt}
                draggable={false}
                onError={trouble.look}
                style={{
                  width: '100%',
                  height: '100%',
                  objectFit: 'contain',
                  padding: 10,
                  boxSizing: 'border-box',
                  pointerEvents: 'auto',
                }}
              />
            </TransformComponent>
            <ZoomButtons viewer={viewer} />
          </div>
        )}
      </TransformWrapper>
    </View>
  )
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

function ZoomButtons({ viewer }: { viewer: ReactZoomPanPinchContentRef }) {
  return (
    <View
      style={{
        position: 'absolute',
        right: 8,
        bottom: 8,
        flexDirection: 'row',
        gap: 4,
        backgroundColor: 'rgba(255,255,255,0.92)',
        borderRadius: corners.button,
      }}
    >
      <RoundButton
        label={strings.zoomOut}
        symbol="zoom-out"
        size={targets.adult}
        onPress={() => viewer.zoomOut()}
      />
      <RoundButton
        label={strings.fit}
        symbol="fit"
        size={targets.adult}
        onPress={() => viewer.resetTransform()}
      />
      <RoundButton
        label={strings.zoomIn}
        symbol="zoom"
        size={targets.adult}
        onPress={() => viewer.zoomIn()}
      />
    </View>
  )
}
