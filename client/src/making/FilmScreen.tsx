import { LONGEST_FILM_MS } from '@nibquill/core'
import { useEffect, useState, type CSSProperties } from 'react'
import { View, type ViewStyle } from 'react-native'
import { Text } from 'react-native-paper'
import { film, FILM_WIDTH_PX } from '../device/camera'
import { pickFilms } from '../device/pickFiles'
import { useCamera } from '../device/useCamera'
import { BigButton } from '../kit/BigButton'
import { Bar, Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { playingTime } from '../kit/playingTime'
import { Press } from '../kit/Press'
import { RoundButton } from '../kit/RoundButton'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, space } from '../kit/theme'
import { toast, ToastPlace } from '../kit/Toast'
import { FilmHere } from '../media/Player'
import { MakeHead } from './MakeHead'
import { OpenPiece, Told } from './OneGo'
import { useOneGo } from './useOneGo'
import type { Recorded } from '../device/useRecorded'
import { t } from './words'

/** A film: filmed in one go or picked, watched, kept, or filmed again. */
export function FilmScreen() {
  const [ready, setReady] = useState(false)
  const [wanted, setWanted] = useState(true)
  const camera = useCamera(wanted, 'environment', FILM_WIDTH_PX, true)
  const { stream, video, trouble, turn, tryAgain } = camera
  const { recording, keepAndGoOn, ...place } = useOneGo(
    'film',
    (keep) => Promise.resolve(film(stream!, t('filmName'), keep)),
    LONGEST_FILM_MS,
    () => true,
  )
  const { state, runMs, start, stop, again, takeBack } = recording
  const filmed = state.at === 'recorded'
  // While one watches what was filmed, nothing is filmed.
  useEffect(() => setWanted(!filmed), [filmed])
  useEffect(() => {
    if (video.current) video.current.srcObject = stream
    setReady(false)
  }, [video, stream])
  const filmAgain = (recorded: Recorded) => {
    again()
    toast(t('filmedAway'), { undo: () => takeBack(recorded) })
  }
  const pick = async () => {
    const [file] = await pickFilms()
    if (file) takeBack({ file, ms: 0, heard: null, quiet: false, tooLoud: false })
  }
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      <MakeHead title={t('filmTitle')} />
      <OpenPiece {...place} closed={t('filmClosed')}>
        {state.at === 'recorded' ? (
          <Watched
            file={state.recorded.file}
            onKeep={() => void keepAndGoOn(state.recorded)}
            onAgain={() => filmAgain(state.recorded)}
          />
        ) : (
          <View style={{ flex: 1 }}>
            <View style={[LENS, trouble ? { backgroundColor: colours.desk } : {}]}>
              {trouble ? (
                <Stack gap="clear" style={{ padding: space.far, maxWidth: 520 }}>
                  <Text variant="bodyLarge">{t(`filmTrouble.${trouble}`)}</Text>
                  <BigButton label={t('pickFilm')} symbol="upload" onPress={() => void pick()} />
                  <BigButton
                    tone="quiet"
                    label={t('tryCamera')}
                    symbol="film-camera"
                    onPress={tryAgain}
                  />
                </Stack>
              ) : (
                <video
                  ref={video}
                  autoPlay
                  playsInline
                  muted
                  onLoadedData={() => setReady(true)}
                  aria-label={t('filmTitle')}
                  style={FILLS}
                />
              )}
              {state.at === 'recording' ? <Time runMs={runMs} /> : null}
            </View>
            {trouble ? null : (
              <FilmFoot
                filming={state.at === 'recording'}
                canFilm={ready && stream !== null}
                onStart={() => void start()}
                onStop={() => void stop()}
                onPick={() => void pick()}
                onTurn={turn}
              />
            )}
          </View>
        )}
      </OpenPiece>
      <ToastPlace />
    </View>
  )
}

/** How long it runs, on a sheet over the picture. */
function Time({ runMs }: { runMs: number }) {
  return (
    <View style={TIME}>
      <Text role="timer" variant="titleMedium">
        {t('timeSaid', {
          time: playingTime(runMs),
          left: playingTime(LONGEST_FILM_MS - runMs),
        })}
      </Text>
    </View>
  )
}

function FilmFoot({
  filming,
  canFilm,
  onStart,
  onStop,
  onPick,
  onTurn,
}: {
  filming: boolean
  canFilm: boolean
  onStart: () => void
  onStop: () => void
  onPick: () => void
  onTurn: (() => void) | null
}) {
  const side = { width: SIDE_PX, alignItems: 'center' } as const
  return (
    <Bar between gap="none" style={FOOT}>
      <View style={side}>
        {filming ? null : (
          <RoundButton
            label={t('pickFilm')}
            symbol="upload"
            onPress={onPick}
            size={SIDE_PX}
            back={colours.sheet}
            colour={colours.aubergine}
          />
        )}
      </View>
      <Press
        label={t(filming ? 'filmStop' : 'filmStart')}
        does={filming ? 'stop' : 'start'}
        disabled={!filming && !canFilm}
        onPress={filming ? onStop : onStart}
        style={[ROUND, { backgroundColor: filming ? colours.clay : colours.aubergine }]}
      >
        <DrawnSymbol
          name={filming ? 'stop-recording' : 'film-camera'}
          size={44}
          colour={colours.sheet}
        />
        <Text variant="labelMedium" style={{ color: colours.sheet }}>
          {t(filming ? 'filmStop' : 'filmStart')}
        </Text>
      </Press>
      <View style={side}>
        {filming ? null : onTurn ? (
          <RoundButton
            label={t('turnCamera')}
            symbol="camera-turn"
            onPress={onTurn}
            size={SIDE_PX}
            back={colours.sheet}
            colour={colours.aubergine}
          />
        ) : (
          <Listen text={t('filmHelp')} />
        )}
      </View>
    </Bar>
  )
}

function Watched({
  file,
  onKeep,
  onAgain,
}: {
  file: File
  onKeep: () => void
  onAgain: () => void
}) {
  return (
    <Stack gap="apart" style={WATCHED}>
      <Told words={t('filmedHelp')} />
      <FilmHere file={file} alt={t('filmName')} />
      <BigButton label={t('filmKeep')} symbol="check" onPress={onKeep} />
      <BigButton tone="quiet" symbol="again" label={t('filmAgain')} onPress={onAgain} />
    </Stack>
  )
}

const SIDE_PX = 64
const FILLS: CSSProperties = {
  ...{ position: 'absolute', inset: 0, width: '100%', height: '100%' },
  objectFit: 'contain',
}
const LENS: ViewStyle = {
  ...{ flex: 1, margin: space.apart, borderRadius: corners.button, overflow: 'hidden' },
  ...{ backgroundColor: colours.ink, alignItems: 'center', justifyContent: 'center' },
}
const TIME: ViewStyle = {
  ...{ position: 'absolute', top: space.apart, alignSelf: 'center' },
  ...{ backgroundColor: colours.sheet, borderRadius: corners.sheet },
  ...{ paddingHorizontal: space.apart, paddingVertical: space.tight },
}
const FOOT: ViewStyle = {
  ...{ paddingHorizontal: 22, paddingBottom: space.clear, maxWidth: 560 },
  ...{ width: '100%', alignSelf: 'center' },
}
const ROUND: ViewStyle = {
  ...{ width: 104, height: 104, borderRadius: 52, alignItems: 'center', justifyContent: 'center' },
}
const WATCHED: ViewStyle = {
  ...{ flex: 1, padding: space.clear, width: '100%', maxWidth: 720, alignSelf: 'center' },
}
