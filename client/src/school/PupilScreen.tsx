import { router, useLocalSearchParams } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BookBox } from '../book/BookBox'
import { whenWasIt } from '../kit/dates'
import { Heading, Page } from '../kit/layout'
import { Empty, Loading, ProblemNotice } from '../kit/Notice'
import { Peg } from '../kit/Peg'
import { RoundButton } from '../kit/RoundButton'
import { colours, targets } from '../kit/theme'
import { Chapters } from '../portfolio/Chapters'
import { usePortfolio } from '../portfolio/portfolioQueries'
import { strings as portfolioWords } from '../portfolio/strings'
import { ParentsBox } from '../sharing/ParentsBox'
import { useClass, usePupil } from './schoolQueries'
import { strings } from './strings'

/** A pupil's page: portfolio, book, parents; from pupil to pupil with one tap. */
export function PupilScreen() {
  const { id } = useLocalSearchParams<{ id: string }>()
  const pupil = usePupil(id)
  const portfolio = usePortfolio(id)
  const classmates = useClass(pupil.data?.classId ?? '')
  if (pupil.isPending || portfolio.isPending) return <Loading />
  if (pupil.isError) return <ProblemNotice error={pupil.error} onRetry={() => void pupil.refetch()} />
  if (portfolio.isError) return <ProblemNotice error={portfolio.error} onRetry={() => void portfolio.refetch()} />
  const order = classmates.data?.pupils ?? []
  const at = order.findIndex((other) => other.id === id)
  const go = (to: number) => {
    const other = order[to]
    if (other) router.replace(`/class/${other.id}`)
  }
  const { firstName, lastName } = pupil.data
  return (
    <Page max={980}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
        <RoundButton label={strings.backToClass} symbol="back" size={targets.adult} onPress={() => router.replace('/class')} />
        <Peg peg={pupil.data.peg} size={60} />
        <View style={{ flex: 1 }}>
          <Heading level={1}>{`${firstName} ${lastName}`}</Heading>
          <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
            {`${pupil.data.className} · ${strings.lastSeen(pupil.data.lastSeenAt ? whenWasIt(pupil.data.lastSeenAt) : strings.never)}`}
          </Text>
        </View>
        <RoundButton
          label={strings.previousPupil}
          symbol="previous"
          size={targets.adult}
          disabled={at <= 0}
          onPress={() => go(at - 1)}
        />
        <RoundButton
          label={strings.nextPupil}
          symbol="next"
          size={targets.adult}
          disabled={at < 0 || at >= order.length - 1}
          onPress={() => go(at + 1)}
        />
      </View>
      <BookBox pupilId={id} chapters={portfolio.data.chapters} />
      <ParentsBox pupilId={id} />
      <Heading>{portfolioWords.titleOf(firstName)}</Heading>
      {portfolio.data.chapters.some(({ picks, others }) => picks.length + others.length > 0) ? (
        <Chapters portfolio={portfolio.data} mayOrder onOpen={(piece) => router.push(`/tray/${piece.id}`)} />
      ) : (
        <Empty symbol="portfolio" title={portfolioWords.emptyFor} />
      )}
    </Page>
  )
}
