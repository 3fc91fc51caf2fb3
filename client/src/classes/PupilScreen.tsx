import type { PupilDetail } from '@nibquill/contract'
import { router, useLocalSearchParams } from 'expo-router'
import { useEffect } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useSession } from '../accounts'
import { BookBox, useBooks } from '../book'
import { OpenPrivateWords } from '../comments'
import { whenWasIt } from '../kit/dates'
import { Hint } from '../kit/form'
import { Bar, Heading, Page } from '../kit/layout'
import { Empty, Loading, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { RoundButton } from '../kit/RoundButton'
import { Symbol } from '../kit/Symbol'
import { pigments, targets } from '../kit/theme'
import { Chapters, usePortfolio } from '../portfolio'
import { ParentsBox, usePupilSharing } from '../sharing'
import { PupilEditBox } from './PupilEditBox'
import { useClass, usePupil, schoolWords } from '../school'
import { t } from './words'

/**
 * A pupil's page: folders, pieces, portfolio, book, card, parents; from pupil to pupil with one tap
 * or key.
 */
export function PupilScreen() {
  const { id } = useLocalSearchParams<{ id: string }>()
  const session = useSession()
  const teaches = session.data?.person?.role === 'teacher'
  const pupil = usePupil(id)
  // Shown at once: what comes late would push away the button a finger is on.
  const sharing = usePupilSharing(id)
  const portfolio = usePortfolio(teaches ? id : '')
  const books = useBooks(teaches ? id : '')
  const waiting = [pupil, sharing, ...(teaches ? [portfolio, books] : [])].some(
    ({ isPending }) => isPending,
  )
  if (pupil.isError)
    return <ProblemNotice error={pupil.error} onRetry={() => void pupil.refetch()} />
  if (waiting || !pupil.data) return <Loading />
  return (
    <Page max={980}>
      <PupilHead pupil={pupil.data} />
      {teaches ? <Work pupil={pupil.data} /> : null}
      <ParentsBox pupilId={id} firstName={pupil.data.firstName} />
      <PupilEditBox key={id} pupil={pupil.data} />
      {session.data?.person?.leads ? (
        <OpenPrivateWords key={`private ${id}`} pupilId={id} name={pupil.data.firstName} />
      ) : null}
    </Page>
  )
}

function PupilHead({ pupil }: { pupil: PupilDetail }) {
  const classmates = useClass(pupil.classId)
  const order = classmates.data?.pupils ?? []
  const at = order.findIndex((other) => other.id === pupil.id)
  const [before, after] = [order[at - 1], at < 0 ? undefined : order[at + 1]]
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (
        event.target instanceof HTMLElement &&
        /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName)
      )
        return
      const other =
        event.key === 'ArrowLeft' ? before : event.key === 'ArrowRight' ? after : undefined
      if (other) router.replace(`/class/${other.id}`)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [before, after])
  return (
    <Bar>
      <RoundButton
        label={t('backToClass')}
        symbol="back"
        size={targets.adult}
        onPress={() => router.replace(`/class?classId=${pupil.classId}`)}
      />
      <Peg peg={pupil.peg} size={60} />
      <View style={{ flex: 1 }}>
        <Heading level={1}>{`${pupil.firstName} ${pupil.lastName}`.trim()}</Heading>
        <Hint>
          {[
            pupil.className,
            pupil.leftAt
              ? schoolWords('gone')
              : schoolWords('lastSeen', {
                  when: pupil.lastSeenAt ? whenWasIt(pupil.lastSeenAt) : schoolWords('never'),
                }),
          ].join(' · ')}
        </Hint>
      </View>
      <RoundButton
        label={t('previousPupil')}
        symbol="previous"
        size={targets.adult}
        disabled={!before}
        onPress={() => before && router.replace(`/class/${before.id}`)}
      />
      <RoundButton
        label={t('nextPupil')}
        symbol="next"
        size={targets.adult}
        disabled={!after}
        onPress={() => after && router.replace(`/class/${after.id}`)}
      />
    </Bar>
  )
}

function Work({ pupil }: { pupil: PupilDetail }) {
  const portfolio = usePortfolio(pupil.id)
  if (!isHere(portfolio)) return <NotYet of={portfolio} />
  const { chapters } = portfolio.data
  const pieces = chapters.flatMap(({ picks, others }) => [
    ...picks.map(({ piece }) => piece),
    ...others,
  ])
  const folders = new Map(
    pieces.flatMap(({ folder }) => (folder ? [[folder.id, folder] as const] : [])),
  )
  return (
    <>
      <Bar wrap gap="clear">
        {[...folders.values()].map((folder) => (
          <Bar key={folder.id} gap="close">
            <Symbol name={folder.symbol} size={22} colour={pigments[folder.colour]} />
            <Text variant="bodyMedium">{`${folder.name} ${pieces.filter((piece) => piece.folder?.id === folder.id).length}`}</Text>
          </Bar>
        ))}
      </Bar>
      <BookBox pupilId={pupil.id} chapters={chapters} />
      <Heading>{t('titleOf', { name: pupil.firstName })}</Heading>
      {pieces.length > 0 ? (
        <Chapters portfolio={portfolio.data} onOpen={(piece) => router.push(`/tray/${piece.id}`)} />
      ) : (
        <Empty symbol="portfolio" title={t('emptyFor')} />
      )}
    </>
  )
}
