import type { FilmPart, Piece } from '@nibquill/contract'
import { useEffect, useState } from 'react'
import { View } from 'react-native'
import { BigButton } from '../kit/BigButton'
import { Bar } from '../kit/layout'
import { Overlay } from '../kit/Overlay'
import { toast } from '../kit/Toast'
import { space } from '../kit/theme'
import { MakingReady } from '../media/MakingReady'
import { FilmPlayer } from '../media/Player'
import { usePieceWork } from '../pieces'
import { Told } from './OneGo'
import { t } from './words'

/** What stands for a film in lists and on paper: the moment its makers stop it at. */
export function PosterChoice({ piece, part }: { piece: Piece; part: FilmPart }) {
  const [open, setOpen] = useState(false)
  const work = usePieceWork(piece.id)
  const { film, poster } = part.files
  const choose = async (picture: File) => {
    setOpen(false)
    await work.choosePoster(part.id, picture)
    const undo = () => void work.choosePoster(part.id, poster?.mediaId ?? null)
    toast(t('posterChosen'), { undo })
  }
  return (
    <>
      <Bar wrap align="stretch">
        <BigButton
          grow
          tone="quiet"
          symbol="pictures"
          label={t('choosePoster')}
          onPress={() => setOpen(true)}
        />
      </Bar>
      <Overlay visible={open} title={t('choosePoster')} width={760} onClose={() => setOpen(false)}>
        <View
          style={{ padding: space.clear, paddingTop: 0, gap: space.apart, alignItems: 'center' }}
        >
          <Told words={t('posterHelp')} />
          <View style={{ height: 380, width: '100%' }}>
            <FilmPlayer
              file={film}
              poster={undefined}
              alt={t('filmName')}
              below={(video) => <ThisMoment video={video} onChosen={choose} />}
            />
          </View>
          <MakingReady file={film} />
        </View>
      </Overlay>
    </>
  )
}

function ThisMoment({
  video,
  onChosen,
}: {
  video: HTMLVideoElement
  onChosen: (picture: File) => Promise<void>
}) {
  const shown = useShown(video)
  const take = async () => {
    video.pause()
    const picture = await momentOf(video)
    if (picture) await onChosen(picture)
  }
  return (
    <BigButton
      symbol="check"
      label={t('thisMoment')}
      disabled={!shown}
      onPress={() => void take()}
    />
  )
}

/** Whether there is a moment to be seen: a browser that cannot show a film has none. */
function useShown(video: HTMLVideoElement): boolean {
  const [shown, setShown] = useState(false)
  useEffect(() => {
    const look = () => setShown(video.readyState >= HTMLMediaElement.HAVE_CURRENT_DATA)
    look()
    for (const name of SHOWS) video.addEventListener(name, look)
    return () => {
      for (const name of SHOWS) video.removeEventListener(name, look)
    }
  }, [video])
  return shown
}
const SHOWS = ['loadeddata', 'seeking', 'seeked', 'timeupdate', 'emptied'] as const

const QUALITY = 0.9

async function momentOf(video: HTMLVideoElement): Promise<File | null> {
  const canvas = document.createElement('canvas')
  canvas.width = video.videoWidth
  canvas.height = video.videoHeight
  canvas.getContext('2d')?.drawImage(video, 0, 0)
  const picture = await new Promise<Blob | null>((done) =>
    canvas.toBlob(done, 'image/jpeg', QUALITY),
  )
  return picture && new File([picture], 'moment.jpg', { type: 'image/jpeg' })
}
