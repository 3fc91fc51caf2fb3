import { router, useLocalSearchParams } from 'expo-router'
import { useEffect, useRef, useState } from 'react'
import { Image, ScrollView, View } from 'react-native'
import { Text } from 'react-native-paper'
import { v7 as newId } from 'uuid'
import { useKeepFirst, useSession } from '../accounts'
import { sentenceOf } from '../kit/problems'
import { PHOTO_WIDTH_PX, takePhoto } from '../device/camera'
import { pickPictures } from '../device/pickFiles'
import { askToStay, LITTLE_ROOM_BYTES, roomLeft } from '../device/room'
import { useCamera } from '../device/useCamera'
import type { PhotoFault } from '@nibquill/core'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Listen } from '../kit/Listen'
import { Loading, Notice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { RoundButton } from '../kit/RoundButton'
import { colours, corners } from '../kit/theme'
import { lookAtPhoto } from '../media/lookAtPhoto'
import { MakeHead } from './MakeHead'
import { PartsStrip } from './PartsStrip'
import { pickUp } from '../parts/pickedFiles'
import { piecesStrings as strings, useShownPiece } from '../pieces'
import { useTakingPhotos } from './useTakingPhotos'

/** Full screen: look and tap, as often as it takes; one way out on each side. */
export function MakePhotoScreen() {
  const { id, taskId, pick } = useLocalSearchParams<{
    id?: string
    taskId?: string
    pick?: string
  }>()
  const session = useSession()
  const [freshId] = useState(() => newId())
  const pieceId = id ?? freshId
  const { piece } = useShownPiece(pieceId, id !== undefined)
  const ownerId = session.data?.person?.id
  const parts = piece?.parts ?? []
  const count = parts.length
  const taking = useTakingPhotos({
    pieceId,
    taskId: taskId ?? null,
    parts,
    onStarted: () => {
      // So that whoever comes back to this screen comes back to this piece.
      if (id === undefined) router.setParams({ id: pieceId })
    },
  })
  const little = useLittleRoom()
  // Picked on the desk: taken in once it is known whose they are.
  const { take } = taking
  useEffect(() => {
    if (ownerId) void take(pickUp())
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [ownerId])
  if (!ownerId) return <Loading />
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      <MakeHead
        title={strings.takePhoto}
        onOn={count > 0 ? () => router.push(`/my-pieces/${pieceId}/what`) : undefined}
      />
      <View style={{ paddingHorizontal: 12, paddingTop: 8, gap: 8 }}>
        {taking.problem ? (
          <Notice tone="again" symbol="alert">
            {sentenceOf(taking.problem)}
          </Notice>
        ) : null}
        {[...taking.words, ...(little ? [strings.littleRoom] : [])].map((words) => (
          <Notice key={words} tone="attention" symbol="bulb">
            {words}
          </Notice>
        ))}
      </View>
      <CameraStage
        count={count}
        onPhoto={(file) => void taking.take([file])}
        onKeep={(file) => taking.keep([file])}
        onPick={() => void pickPictures().then(taking.take)}
        pickFirst={pick === '1'}
      />
      {count > 0 ? (
        <ScrollView
          horizontal
          style={{
            flexGrow: 0,
            backgroundColor: colours.sheet,
            borderTopWidth: 1,
            borderTopColor: colours.rule,
          }}
          contentContainerStyle={{ padding: 12 }}
        >
          <PartsStrip pieceId={pieceId} parts={parts} row />
        </ScrollView>
      ) : null}
      <Ask
        visible={taking.again.length > 0}
        title={strings.hereAlready(taking.again.length)}
        yes={strings.useAgain}
        no={strings.leaveOut}
        onYes={taking.useAgain}
        onNo={taking.leaveOut}
      >
        {strings.hereAlreadyHelp}
      </Ask>
    </View>
  )
}

/** Said before something is made that might not fit. */
function useLittleRoom(): boolean {
  const [little, setLittle] = useState(false)
  useEffect(() => {
    askToStay()
    void roomLeft().then((bytes) => setLittle(bytes !== null && bytes < LITTLE_ROOM_BYTES))
  }, [])
  return little
}

/** A photo with a fault, shown before it is taken. */
type Still = { file: File; address: string; fault: PhotoFault }
type StageProps = {
  count: number
  onPhoto: (file: File) => void
  onKeep: (file: File) => Promise<void>
  onPick: () => void
  pickFirst: boolean
}

/**
 * One tap, one photo: it lies in the row below at once. Only a photo with a fault is shown first.
 */
function CameraStage({ count, onPhoto, onKeep, onPick, pickFirst }: StageProps) {
  const [wanted, setWanted] = useState(!pickFirst)
  const { video, stream, trouble, turn, tryAgain } = useCamera(
    wanted,
    'environment',
    PHOTO_WIDTH_PX,
  )
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
          margin: 12,
          borderRadius: corners.button,
          overflow: 'hidden',
          backgroundColor: trouble || !wanted ? colours.desk : colours.ink,
          alignItems: 'center',
          justifyContent: 'center',
        }}
      >
        {trouble || !wanted ? (
          <NoCamera
            trouble={trouble}
            onPick={onPick}
            onCamera={() => (setWanted(true), tryAgain())}
          />
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
        accessibilityLabel={strings.photo}
        resizeMode="contain"
        style={{
          flex: 1,
          margin: 12,
          borderRadius: corners.button,
          backgroundColor: colours.desk,
        }}
      />
      <View style={{ paddingHorizontal: 14, maxWidth: 640, width: '100%', alignSelf: 'center' }}>
        <Notice tone="attention" symbol="bulb">
          {strings.faults[still.fault]}
        </Notice>
      </View>
      <View
        style={{
          flexDirection: 'row',
          gap: 12,
          padding: 14,
          maxWidth: 640,
          width: '100%',
          alignSelf: 'center',
        }}
      >
        <BigButton label={strings.again} symbol="retake" tone="quiet" onPress={onAgain} grow />
        <BigButton label={strings.useIt} symbol="check" tone="good" grow onPress={onUse} />
      </View>
    </View>
  )
}

function NoCamera({
  trouble,
  onPick,
  onCamera,
}: {
  trouble: ReturnType<typeof useCamera>['trouble']
  onPick: () => void
  onCamera: () => void
}) {
  return (
    <View style={{ padding: 24, gap: 16, maxWidth: 520 }}>
      {trouble ? <Text variant="bodyLarge">{strings.trouble[trouble]}</Text> : null}
      <BigButton label={strings.pickFiles} symbol="pictures" onPress={onPick} />
      <BigButton
        label={trouble ? strings.tryCamera : strings.takePhoto}
        symbol="camera"
        tone="quiet"
        onPress={onCamera}
      />
    </View>
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
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        justifyContent: 'space-between',
        paddingHorizontal: 22,
        paddingBottom: 16,
        maxWidth: 560,
        width: '100%',
        alignSelf: 'center',
      }}
    >
      <RoundButton
        label={strings.pickFiles}
        symbol="pictures"
        onPress={onPick}
        size={64}
        back={colours.sheet}
        colour={colours.aubergine}
      />
      <Press
        label={strings.shutter}
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
          label={strings.turnCamera}
          symbol="camera-turn"
          onPress={onTurn}
          size={64}
          back={colours.sheet}
          colour={colours.aubergine}
        />
      ) : (
        <View style={{ width: 64, alignItems: 'center' }}>
          <Listen text={strings.photoHelp} />
        </View>
      )}
    </View>
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
        aria-label={strings.takePhoto}
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
          {strings.cameraOpening}
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
