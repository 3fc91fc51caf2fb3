import type { Part } from '@nibquill/contract'
import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import {
  TransformComponent,
  TransformWrapper,
  type ReactZoomPanPinchContentRef,
} from 'react-zoom-pan-pinch'
import { mediaAddress } from '../media/mediaAddress'
import { Picture } from './Sheet'
import { Press } from './Press'
import { RoundButton } from './RoundButton'
import { strings } from './strings'
import { colours, corners, targets } from './theme'

/**
 * Photos as large as the place allows: pinch, wheel or buttons make them larger, drag or arrow keys
 * move them.
 * The 2048 px picture is shown first; going closer brings the full one.
 */
export function PhotoViewer({
  parts,
  link,
  title,
}: {
  parts: Part[]
  link?: string
  title: string
}) {
  const [chosen, setChosen] = useState(0)
  const part = parts[Math.min(chosen, parts.length - 1)]
  if (!part) return null
  return (
    <View style={{ flex: 1, gap: 10 }}>
      <PhotoStage
        key={part.id}
        part={part}
        link={link}
        alt={`${strings.photo(chosen + 1, parts.length)}: ${title}`}
      />
      {parts.length > 1 ? (
        <View role="tablist" style={{ flexDirection: 'row', gap: 8, flexWrap: 'wrap' }}>
          {parts.map((other, i) => (
            <Press
              key={other.id}
              role="tab"
              selected={i === chosen}
              label={strings.photo(i + 1, parts.length)}
              onPress={() => setChosen(i)}
              style={{
                width: 76,
                height: 58,
                borderRadius: corners.sheet,
                overflow: 'hidden',
                borderWidth: 3,
                borderColor: i === chosen ? colours.aubergine : colours.rule,
              }}
            >
              <Picture part={other} alt="" size={320} link={link} fit="cover" />
            </Press>
          ))}
        </View>
      ) : null}
    </View>
  )
}

/** One photo as large as the place allows, to go close to. */
export function PhotoStage({ part, link, alt }: { part: Part; link?: string; alt: string }) {
  const [close, setClose] = useState(false)
  const [broken, setBroken] = useState(false)
  const [near, setNear] = useState<string | null>(null)
  const standIn = mediaAddress(part, 2048, link)
  useEffect(() => {
    if (!close) return
    // Shown only once it is there, so that going closer never blanks the picture.
    const full = new window.Image()
    full.onload = () => setNear(full.src)
    full.src = mediaAddress(part, 'full', link)
  }, [close, part, link])
  if (broken) {
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
        <Text variant="bodyLarge">{strings.damaged}</Text>
      </View>
    )
  }
  const move = (viewer: ReactZoomPanPinchContentRef, key: string) => {
    const { positionX, positionY, scale } = viewer.instance.transformState
    const by = { ArrowLeft: [80, 0], ArrowRight: [-80, 0], ArrowUp: [0, 80], ArrowDown: [0, -80] }[
      key
    ]
    if (by) viewer.setTransform(positionX + by[0]!, positionY + by[1]!, scale, 120)
    else if (key === '+' || key === '=') viewer.zoomIn()
    else if (key === '-') viewer.zoomOut()
    else if (key === '0') viewer.resetTransform()
  }
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
              if (
                !['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', '+', '=', '-', '0'].includes(
                  event.key,
                )
              )
                return
              event.preventDefault()
              event.stopPropagation()
              move(viewer, event.key)
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
                onError={() => setBroken(true)}
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
          </div>
        )}
      </TransformWrapper>
    </View>
  )
}
