import type { PupilDetail } from '@nibquill/contract'
import { YEAR_GROUPINGS, type YearGrouping } from '@nibquill/core/review/groupYear'
import { router, useLocalSearchParams } from 'expo-router'
import { useEffect } from 'react'
import { View } from 'react-native'
import { useSession } from '../accounts'
import { BookBox, useBooks } from '../book'
import { BigButton } from '../kit/BigButton'
import { Tabs } from '../kit/choices'
import { Bar, Page } from '../kit/layout'
import { Empty, Loading, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Chapters, usePortfolio } from '../portfolio'
import { usePupil } from '../school'
import { Administration } from './Administration'
import { forgetOrder } from './frozenOrder'
import { NowAndYear } from './NowAndYear'
import { PupilHead } from './PupilHead'
import { usePupilDesk } from './pupilsQueries'
import { t } from './words'

const SHOWN = ['work', 'portfolio'] as const
/** How the page is looked at stands in its address. */
export function usePupilView() {
  const asked = useLocalSearchParams<{ show?: string; by?: string }>()
  return {
    show: SHOWN.find((one) => one === asked.show) ?? 'work',
    by: YEAR_GROUPINGS.find((one) => one === asked.by) ?? ('folder' as YearGrouping),
  }
}

/**
 * A pupil's page as their teacher's desk: what is going on now, then the year; the portfolio and its
 * book beside it, everything to be administered behind one button.
 */
export function PupilScreen() {
  const { id } = useLocalSearchParams<{ id: string }>()
  const session = useSession()
  const teaches = session.data?.person?.role === 'teacher'
  const pupil = usePupil(id)
  const desk = usePupilDesk(id, teaches)
  const { show, by } = usePupilView()
  useEffect(forgetOrder, [id, by])
  if (pupil.isError)
    return <ProblemNotice error={pupil.error} onRetry={() => void pupil.refetch()} />
  if (!pupil.data || (teaches && desk.isPending)) return <Loading />
  const { firstName } = pupil.data
  if (!teaches)
    return (
      <Page max={980}>
        <PupilHead pupil={pupil.data} />
        <Administration pupil={pupil.data} />
      </Page>
    )
  return (
    <Page max={980}>
      <PupilHead pupil={pupil.data} />
      <Bar between wrap>
        <Tabs
          label={t('places', { name: firstName })}
          value={show}
          options={SHOWN.map((value) => ({ value, label: t(value) }))}
          onChange={(value) => router.setParams({ show: value })}
        />
        <BigButton
          small
          tone="quiet"
          symbol="people"
          label={t('administration')}
          onPress={() => router.push(`/class/${id}/administration`)}
        />
      </Bar>
      {show === 'portfolio' ? (
        <Portfolio pupil={pupil.data} />
      ) : isHere(desk) ? (
        <NowAndYear
          pupilId={id}
          desk={desk.data}
          by={by}
          onBy={(value) => router.setParams({ by: value })}
        />
      ) : (
        <NotYet of={desk} />
      )}
    </Page>
  )
}

function Portfolio({ pupil }: { pupil: PupilDetail }) {
  const portfolio = usePortfolio(pupil.id)
  const books = useBooks(pupil.id)
  // Shown at once: what comes late would push away the button a finger is on.
  if (!isHere(portfolio) || books.isPending) return <NotYet of={portfolio} />
  const { chapters } = portfolio.data
  const isEmpty = chapters.every(({ picks, others }) => picks.length + others.length === 0)
  return (
    <View role="region" aria-label={t('titleOf', { name: pupil.firstName })} style={{ gap: 18 }}>
      <BookBox pupilId={pupil.id} chapters={chapters} />
      {isEmpty ? (
        <Empty symbol="portfolio" title={t('emptyFor')} />
      ) : (
        <Chapters
          portfolio={portfolio.data}
          onOpen={(piece) => router.push(`/class/${pupil.id}/${piece.id}`)}
        />
      )}
    </View>
  )
}
