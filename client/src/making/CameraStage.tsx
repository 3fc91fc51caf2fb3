import { useEffect, useRef, useState } from 'react'
import { Image, View } from 'react-native'
import { Text } from 'react-native-paper'
import type { PhotoFault } from '@nibquill/core/media/photoFaults'
import { useKeepFirst } from '../accounts'
import { PHOTO_WIDTH_PX, takePhoto } from '../device/camera'
import { useCamera } from '../device/useCamera'
import { BigButton } from '../kit/BigButton'
import { Bar, Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Notice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { RoundButton } from '../kit/RoundButton'
import { colours, corners, space } from '../kit/theme'
import { lookAtPhoto } from '../media/lookAtPhoto'
import { t } from './words'

/** A photo with a fault, shown before it is taken. */
type Still = { file: File; address: string; fault: PhotoFault }
type StageProps = {
  count: number
  onPhoto: (file: File) => void
  onKeep: (file: File) => Promise<void>
  onPick: () => void
}

/**
 * One tap, one photo: it lies in the row below at once. Only a photo with a fault is shown first.
 */
export function CameraStage({ count, onPhoto, onKeep, onPick }: StageProps) {
  const { video, stream, trouble, turn, tryAgain } = useCamera(true, 'environment', PHOTO_WIDTH_PX)
  const [ready, setReady] = useState(false)
  const [flash, setFlash] = useState(false)
  const [still, setStill] = useState<Still | null>(null)

  // The picture element comes and goes with the still; the stream stays.
  useEffect(() => {
    if (video.current) video.current.srcObject = stream
    setReady(false)
  }, [video, stream, still])
  useEffect(() => () => void (still && URL.revokeObjectURL(still.address)), [still])

  // A photo nobody said yes or no to is kept rather than lost.
  useKeepFirst(async () => {
    if (!still) return
    await onKeep(still.file)
    setStill(null)
  })
  const shooting = useRef(false)
  const shoot = async () => {
    if (!video.current || shooting.current) return
    shooting.current = true
    try {
      setFlash(true)
      const file = await takePhoto(video.current, new Date())
      setFlash(false)
      const fault = await lookAtPhoto(file)
      if (fault) setStill({ file, address: URL.createObjectURL(file), fault })
      else onPhoto(file)
    } finally {
      setFlash(false)
      shooting.current = false
    }
  }
  if (still)
    return (
      <Doubtful
        still={still}
        onAgain={() => setStill(null)}
        onUse={() => {
          onPhoto(still.file)
          setStill(null)
        }}
      />
    )
  return (
    <View style={{ flex: 1 }}>
      <View
        style={{
          flex: 1,
          margin: space.apart,
          borderRadius: corners.button,
          overflow: 'hidden',
          backgroundColor: trouble ? colours.desk : colours.ink,
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        {trouble ? (
          <NoCamera trouble={trouble} onPick={onPick} onCamera={tryAgain} />
        ) : (
          <Lens video={video} ready={ready} flash={flash} onReady={() => setReady(true)} />
        )}
      </View>
      <CameraFoot
        count={count}
        canShoot={ready && trouble === null}
        onShoot={() => void shoot()}
        onPick={onPick}
        onTurn={turn}
      />
    </View>
  )
}

function Doubtful({
  still,
  onAgain,
  onUse,
}: {
  still: Still
  onAgain: () => void
  onUse: () => void
}) {
  return (
    <View style={{ flex: 1 }}>
      <Image
        source={{ uri: still.address }}
        accessibilityLabel={t('photo')}
        resizeMode="contain"
        style={{
          flex: 1,
          margin: space.apart,
          borderRadius: corners.button,
          backgroundColor: colours.desk,
        }}
      />
      <View
        style={{
          paddingHorizontal: space.apart,
          maxWidth: 640,
          width: '100%',
          alignSelf: 'center',
        }}
      >
        <Notice tone="attention" symbol="bulb">
          {t(`faults.${still.fault}`)}
        </Notice>
      </View>
      <Bar
        align="stretch"
        gap="apart"
        style={{ padding: space.apart, maxWidth: 640, width: '100%', alignSelf: 'center' }}
      >
        <BigButton label={t('again')} symbol="retake" tone="quiet" onPress={onAgain} grow />
        <BigButton label={t('useIt')} symbol="check" tone="good" grow onPress={onUse} />
      </Bar>
    </View>
  )
}

function NoCamera({
  trouble,
  onPick,
  onCamera,
}: {
  trouble: NonNullable<ReturnType<typeof useCamera>['trouble']>
  onPick: () => void
  onCamera: () => void
}) {
  return (
    <Stack gap="clear" style={{ padding: 24, maxWidth: 520 }}>
      <Text variant="bodyLarge">{t(`trouble.${trouble}`)}</Text>
      <BigButton label={t('pickFiles')} symbol="pictures" onPress={onPick} />
      <BigButton label={t('tryCamera')} symbol="camera" tone="quiet" onPress={onCamera} />
    </Stack>
  )
}

/** Picking, the shutter with the count, and the other camera. */
function CameraFoot({
  count,
  canShoot,
  onShoot,
  onPick,
  onTurn,
}: {
  count: number
  canShoot: boolean
  onShoot: () => void
  onPick: () => void
  onTurn: ReturnType<typeof useCamera>['turn']
}) {
  return (
    <Bar
      between
      gap="none"
      style={{
        paddingHorizontal: 22,
        paddingBottom: space.clear,
        maxWidth: 560,
        width: '100%',
        alignSelf: 'center',
      }}
    >
      <RoundButton
        label={t('pickFiles')}
        symbol="pictures"
        onPress={onPick}
        size={64}
        back={colours.sheet}
        colour={colours.aubergine}
      />
      <Press
        label={t('shutter')}
        disabled={!canShoot}
        onPress={onShoot}
        style={{
          width: 84,
          height: 84,
          borderRadius: 84,
          backgroundColor: colours.aubergine,
          borderWidth: 6,
          borderColor: colours.sheet,
          boxShadow: `0 0 0 4px ${colours.aubergine}`,
        }}
      >
        {count > 0 ? (
          <Text aria-hidden variant="titleMedium" style={{ color: colours.sheet, margin: 'auto' }}>
            {count}
          </Text>
        ) : null}
      </Press>
      {onTurn ? (
        <RoundButton
          label={t('turnCamera')}
          symbol="camera-turn"
          onPress={onTurn}
          size={64}
          back={colours.sheet}
          colour={colours.aubergine}
        />
      ) : (
        <View style={{ width: 64, alignItems: 'center' }}>
          <Listen text={t('photoHelp')} />
        </View>
      )}
    </Bar>
  )
}

/** What the camera sees, and a flash at the moment it is taken. */
function Lens({
  video,
  ready,
  flash,
  onReady,
}: {
  video: ReturnType<typeof useCamera>['video']
  ready: boolean
  flash: boolean
  onReady: () => void
}) {
  return (
    <>
      <video
        ref={video}
        autoPlay
        playsInline
        muted
        onLoadedData={onReady}
        aria-label={t('takePhoto')}
        style={{
          width: '100%',
          height: '100%',
          objectFit: 'contain',
          position: 'absolute',
          inset: 0,
        }}
      />
      {ready ? null : (
        <Text variant="bodyLarge" style={{ color: colours.paper }}>
          {t('cameraOpening')}
        </Text>
      )}
      {flash ? (
        <View
          style={{
            position: 'absolute',
            inset: 0,
            backgroundColor: colours.sheet,
            opacity: 0.7,
          }}
        />
      ) : null}
    </>
  )
}
