import { placeInSitting } from '@nibquill/core/review/sitting'
import { useLocalSearchParams } from 'expo-router'
import { useMemo } from 'react'
import { View } from 'react-native'
import { useWaitingComments } from '../comments'
import { Bar, useWidth } from '../kit/layout'
import { Loading } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { ToastPlace } from '../kit/Toast'
import { useComeTogether } from '../kit/useComeTogether'
import { useNews } from '../notices'
import { useClasses } from '../school'
import { Desks } from './Desks'
import { useSecondLooks, useTray } from './reviewQueries'
import { useSitting } from './sittingStore'
import { Through } from './Through'
import { NothingJudged, TrayList } from './TrayList'
import { useTrayView } from './useTrayView'

/** The tray: list beside the judging desk on wide screens; one after the other on a phone. */
export function TrayScreen() {
  const { id, end } = useLocalSearchParams<{ id?: string; end?: string }>()
  const { view, go, goTogether, change } = useTrayView()
  const { wide } = useWidth()
  const tray = useTray(view)
  const isAllHere = useComeTogether(useClasses(), useWaitingComments(), useSecondLooks(), useNews())
  const loaded = useMemo(() => tray.data?.pages.flatMap((page) => page.pieces) ?? null, [tray.data])
  const { sitting, fresh, showFresh } = useSitting(
    loaded,
    tray.data?.pages.length ?? 0,
    end !== undefined,
    `${view.classId} ${view.order}`,
  )
  if (!isHere(tray)) return <NotYet of={tray} />
  if (!isAllHere && (wide || !id)) return <Loading />

  const start = placeInSitting(sitting, view.by, null)
  // Wide, the first of them lies on the desk already.
  const shownId = id ?? (wide && !end ? start.nextId : null)
  const place = placeInSitting(sitting, view.by, shownId)
  const deskOf = (pieceId: string) => {
    const at = placeInSitting(sitting, view.by, pieceId)
    const onDecided = () => (at.nextId ? go(at.nextId) : go(null, { end: '1' }))
    return { pieceId, place: at, onGo: go, onDecided }
  }
  const desk = shownId ? (
    <Desks shown={deskOf(shownId)} next={place.nextId ? deskOf(place.nextId) : null} />
  ) : end ? (
    <Through
      sitting={sitting}
      fresh={fresh.length}
      firstId={start.nextId}
      onGo={go}
      onShowFresh={() => (showFresh(), go(null))}
    />
  ) : null
  if (!wide && desk) return desk

  const isEmpty = sitting.pieces.length === sitting.gone.size
  const list = (
    <TrayList
      {...{ tray, sitting, view, fresh, shownId }}
      onChange={change}
      onShowFresh={showFresh}
      onGo={go}
      onTogether={goTogether}
    />
  )
  if (!wide) return list
  return (
    <Bar align="stretch" gap="none" style={{ flex: 1 }}>
      {list}
      <View style={{ flex: 1 }}>
        {desk ?? <NothingJudged isEmpty={isEmpty} />}
        {shownId ? null : <ToastPlace />}
      </View>
    </Bar>
  )
}
