import { useEffect, useState } from 'react'
import { ScrollView, View } from 'react-native'
import { Text } from 'react-native-paper'
import { useHandOver, useSession } from '../accounts'
import { Ask } from '../kit/Ask'
import { useReached } from '../device/network'
import { BigButton } from '../kit/BigButton'
import { Bar, Heading, useWidth } from '../kit/layout'
import { Loading, Notice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { RoundButton } from '../kit/RoundButton'
import { ToastPlace } from '../kit/Toast'
import { colours, space } from '../kit/theme'
import { useComeTogether } from '../kit/useComeTogether'
import { useNews, useNotices } from '../notices'
import { useFolders } from '../folders'
import { useTasks } from '../tasks'
import { Columns } from './Columns'
import { deskAreas, fits, inState, type PieceSize } from './deskAreas'
import { MakeShelf } from './MakeShelf'
import { NewsLine } from './NewsLine'
import { Roomy } from './roomy'
import { useOutbox } from '../outbox/OutboxContext'
import { OutboxLine, useClassmates, useMyPieces, useShownLines } from '../pieces'
import { t } from './words'

/**
 * A pupil's first screen: who I am, news, another go, what is to do, what is on the go, what waits.
 */
export function DeskScreen() {
  const pieces = useMyPieces()
  const tasks = useTasks()
  const notices = useNotices()
  const isAllHere = useComeTogether(notices, useNews())
  const said = (notices.data ?? []).filter(({ seen }) => !seen).length
  const { tablet, height } = useWidth()
  useNeededAway()
  const shown = useShownLines(pieces.data?.pieces ?? [])
  if (!isHere(pieces) || !isHere(tasks)) return <NotYet of={[pieces, tasks]} />
  if (!isAllHere) return <Loading />
  const areasAt = (size: PieceSize) => deskAreas({ shown, tasks: tasks.data, said }, size)
  const large = areasAt('large')
  const roomy = tablet && fits(large, height - AROUND_PX)
  return (
    <View style={{ flex: 1 }}>
      <ScrollView
        contentContainerStyle={{
          padding: space.far,
          paddingBottom: 28,
          gap: space.far,
          width: '100%',
          maxWidth: 1200,
          alignSelf: 'center',
        }}
      >
        <DeskHead />
        <DeviceWords />
        <OutboxLine />
        <NewsLine again={inState(shown, 'returned').map(({ id }) => id)} />
        <Roomy value={roomy}>
          <Columns beside={tablet} areas={roomy ? large : areasAt('small')} />
        </Roomy>
      </ScrollView>
      <ToastPlace />
      <MakeShelf large={tablet && height >= LARGE_SHELF_FROM_PX} />
    </View>
  )
}

/** What stands above and below the areas of a desk. */
const AROUND_PX = 460
/** A tablet held upright. */
const LARGE_SHELF_FROM_PX = 1000

/** What the last steps of a piece ask for is on the tablet before its network goes. */
function useNeededAway(): void {
  useFolders()
  useClassmates(true)
}

/** What one should know of this tablet before making something. */
function DeviceWords() {
  const online = useReached()
  const [keeps, setKeeps] = useState(true)
  const outbox = useOutbox()
  useEffect(() => void outbox.keepsWork().then(setKeeps), [outbox])
  const words = [...(online ? [] : [t('noNetwork')]), ...(keeps ? [] : [t('keepsNothing')])]
  return words.map((text) => (
    <Notice key={text} tone="attention" symbol="no-network">
      {text}
    </Notice>
  ))
}

function DeskHead() {
  const session = useSession()
  const { handOver } = useHandOver()
  const { tablet } = useWidth()
  const [asking, setAsking] = useState(false)
  const person = session.data?.person
  if (!person) return null
  return (
    <Bar gap="apart">
      {person.peg ? <Peg peg={person.peg} size={60} /> : null}
      <View style={{ flex: 1 }}>
        <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {person.className ? t('classOf', { name: person.className }) : ''}
        </Text>
        <Heading level={1}>{t('deskOf', { name: person.firstName })}</Heading>
      </View>
      {tablet ? (
        <BigButton
          tone="quiet"
          symbol="people"
          label={t('leave')}
          onPress={() => setAsking(true)}
        />
      ) : (
        <RoundButton
          label={t('leave')}
          symbol="people"
          onPress={() => setAsking(true)}
          colour={colours.inkSoft}
        />
      )}
      <Ask
        visible={asking}
        title={t('signOutAsk')}
        yes={t('leave')}
        no={t('stay')}
        onYes={() => {
          setAsking(false)
          void handOver()
        }}
        onNo={() => setAsking(false)}
      >
        {t('signOutHelp')}
      </Ask>
    </Bar>
  )
}
