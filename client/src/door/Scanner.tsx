import { readCardLink } from '@nibquill/core'
import { useEffect, useRef, useState, type ReactNode, type RefObject } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import type { Facing } from '../device/camera'
import { useCamera } from '../device/useCamera'
import { BigButton } from '../kit/BigButton'
import { Bar, useWidth } from '../kit/layout'
import { Notice } from '../kit/Notice'
import { RoundButton } from '../kit/RoundButton'
import { colours, corners } from '../kit/theme'
import { useSession } from '../accounts'
import { watchForCards } from './watchForCards'
import { t } from './words'

const WIDTH_PX = 1280
/** Then somebody may need a word of help. */
const STILL_AFTER_MS = 7000
/** How long a sentence about a wrong card stays after the card has gone. */
const WRONG_FOR_MS = 3000
/** A camera that sees no code for so long is switched off: a tablet at the door lasts the day. */
const REST_AFTER_MS = 3 * 60_000
/** A card that was refused is still in the picture: it is not sent again at once. */
const SAME_CARD_PAUSE_MS = 6000

const FACING_KEY = 'nibquill.card-camera'
/**
 * Which way the card camera looked last on this tablet; the one beside the screen to begin with.
 */
const facingBefore = (): Facing => {
  try {
    return localStorage.getItem(FACING_KEY) === 'environment' ? 'environment' : 'user'
  } catch {
    return 'user'
  }
}

type Props = {
  /** Called with the sixteen letters, once for each card held up. */
  onCard: (code: string) => void
  busy: boolean
  onType: () => void
  /** Nobody holds anything up. */
  onRest: () => void
  /** What became of the last card. */
  children?: ReactNode
}

/**
 * Reads cards while the camera runs; one card is told once while it is held up.
 * @returns what was seen instead of a card, and whether it takes long
 */
function useCardWatch(
  video: RefObject<HTMLVideoElement | null>,
  stream: MediaStream | null,
  { onCard, onRest, busy }: Pick<Props, 'onCard' | 'onRest' | 'busy'>,
): { wrong: 'elsewhere' | 'other' | null; slow: boolean } {
  const address = useSession().data?.school?.address
  const [slow, setSlow] = useState(false)
  const [wrong, setWrong] = useState<'elsewhere' | 'other' | null>(null)
  const sent = useRef<{ code: string; at: number } | null>(null)
  const latest = useRef({ onCard, onRest, busy })
  latest.current = { onCard, onRest, busy }

  useEffect(() => {
    const shown = video.current
    if (!shown || !stream) return
    shown.srcObject = stream
    const sites = [window.location.origin, ...(address ? [address] : [])]
    let wrongTimer: ReturnType<typeof setTimeout> | undefined
    const restLater = () => setTimeout(() => latest.current.onRest(), REST_AFTER_MS)
    let restTimer = restLater()
    const stop = watchForCards(shown, (said) => {
      clearTimeout(restTimer)
      restTimer = restLater()
      const card = readCardLink(said, sites)
      if (card.kind !== 'card') {
        setWrong(card.kind)
        clearTimeout(wrongTimer)
        wrongTimer = setTimeout(() => setWrong(null), WRONG_FOR_MS)
        return
      }
      setWrong(null)
      const now = Date.now()
      if (
        latest.current.busy ||
        (sent.current?.code === card.code && now - sent.current.at < SAME_CARD_PAUSE_MS)
      )
        return
      sent.current = { code: card.code, at: now }
      latest.current.onCard(card.code)
    })
    const slowTimer = setTimeout(() => setSlow(true), STILL_AFTER_MS)
    return () => {
      stop()
      clearTimeout(slowTimer)
      clearTimeout(wrongTimer)
      clearTimeout(restTimer)
    }
  }, [stream, address, video])
  return { wrong, slow }
}

/** The camera looks for a card; the letters are the way out. */
export function Scanner({ onCard, busy, onType, onRest, children }: Props) {
  const { video, stream, trouble, facing, turn, tryAgain } = useCamera(
    true,
    facingBefore(),
    WIDTH_PX,
  )
  const [seeing, setSeeing] = useState(false)
  const { wrong, slow } = useCardWatch(video, stream, { onCard, onRest, busy })
  useEffect(() => {
    try {
      localStorage.setItem(FACING_KEY, facing)
    } catch {
      // A browser that keeps nothing asks the camera beside the screen every time.
    }
  }, [facing])

  if (trouble) {
    return (
      <>
        <Notice tone="attention" symbol="camera">
          {t(`trouble.${trouble}`)}
        </Notice>
        <BigButton label={t('scanAgain')} symbol="camera" tone="quiet" onPress={tryAgain} />
        <BigButton label={t('typeInstead')} symbol="edit" onPress={onType} />
      </>
    )
  }
  return (
    <>
      <Finder
        video={video}
        mirrored={facing === 'user'}
        seeing={seeing}
        busy={busy}
        onSeeing={() => setSeeing(true)}
        onTurn={turn}
      />
      {wrong ? (
        <Notice tone="again" symbol="alert">
          {wrong === 'elsewhere' ? t('scanElsewhere') : t('scanOther')}
        </Notice>
      ) : slow ? (
        <Notice tone="attention" symbol="bulb">
          {t('scanStill')}
        </Notice>
      ) : null}
      {children}
      <BigButton tone="quiet" label={t('typeInstead')} symbol="edit" onPress={onType} />
    </>
  )
}

/** What the camera sees, as in a mirror where it looks at whoever holds the card. */
function Finder({
  video,
  mirrored,
  seeing,
  busy,
  onSeeing,
  onTurn,
}: {
  video: RefObject<HTMLVideoElement | null>
  mirrored: boolean
  seeing: boolean
  busy: boolean
  onSeeing: () => void
  onTurn: (() => void) | null | undefined
}) {
  const { height } = useWidth()
  return (
    <View
      style={{
        height: Math.round(Math.max(300, Math.min(420, height * 0.4))),
        borderRadius: corners.button,
        overflow: 'hidden',
        backgroundColor: colours.ink,
        justifyContent: 'center',
      }}
    >
      <video
        ref={video}
        autoPlay
        playsInline
        muted
        onLoadedData={onSeeing}
        aria-label={t('scanPicture')}
        style={{
          position: 'absolute',
          inset: 0,
          width: '100%',
          height: '100%',
          objectFit: 'cover',
          // One sees oneself as in a mirror; what is read is the picture as it is.
          transform: mirrored ? 'scaleX(-1)' : 'none',
        }}
      />
      {seeing ? (
        <CardOutline busy={busy} />
      ) : (
        <Text variant="bodyLarge" style={{ color: colours.paper, textAlign: 'center' }}>
          {t('scanOpening')}
        </Text>
      )}
      {onTurn ? (
        <View style={{ position: 'absolute', right: 8, bottom: 8 }}>
          <RoundButton
            label={t('scanTurn')}
            symbol="camera-turn"
            onPress={onTurn}
            back={colours.sheet}
            colour={colours.aubergine}
          />
        </View>
      ) : null}
    </View>
  )
}

/** Where the card goes: its four corners, as if pinned to a board. */
function CardOutline({ busy }: { busy: boolean }) {
  const colour = busy ? colours.ochreTint : colours.sheet
  return (
    <View
      aria-hidden
      style={{
        alignSelf: 'center',
        width: '74%',
        maxWidth: 330,
        aspectRatio: 1.42,
        justifyContent: 'space-between',
        pointerEvents: 'none',
      }}
    >
      {[0, 1].map((row) => (
        <Bar key={row} align="stretch" between gap="none">
          {[0, 1].map((column) => (
            <View
              key={column}
              style={{
                width: 38,
                height: 38,
                borderColor: colour,
                borderTopWidth: row === 0 ? 5 : 0,
                borderBottomWidth: row === 1 ? 5 : 0,
                borderLeftWidth: column === 0 ? 5 : 0,
                borderRightWidth: column === 1 ? 5 : 0,
                borderTopLeftRadius: row + column === 0 ? corners.button : 0,
                borderBottomRightRadius: row + column === 2 ? corners.button : 0,
                borderTopRightRadius: row === 0 && column === 1 ? corners.button : 0,
                borderBottomLeftRadius: row === 1 && column === 0 ? corners.button : 0,
              }}
            />
          ))}
        </Bar>
      ))}
    </View>
  )
}
