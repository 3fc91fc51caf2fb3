import type { Child, SharedPiece } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState } from 'react'
import { ScrollView, View } from 'react-native'
import { Portal, Text } from 'react-native-paper'
import { useSession, useSignOut } from '../accounts'
import { TakeHome } from '../book'
import { FamilyComments } from '../comments'
import { Ask } from '../kit/Ask'
import { Bar, Grid, Heading, Page, Stack, useWidth } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { useFocusHeld } from '../kit/Overlay'
import { useUntilBack } from '../kit/useUntilBack'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { RoundButton } from '../kit/RoundButton'
import { Sheet } from '../parts/Sheet'
import { colours, corners, space, targets } from '../kit/theme'
import { Requests } from './Requests'
import { SharedPieceView } from './SharedPieceView'
import { useChildren, useChildWork } from './sharingQueries'
import { NoticesFor } from '../notices'
import { t } from './words'

/** One scroll: the child, the newest work, the chapters of the year. */
export function FamilyScreen() {
  const children = useChildren()
  const [chosen, setChosen] = useState<string | null>(null)
  const child = children.data?.find(({ id }) => id === chosen) ?? children.data?.[0]
  if (!isHere(children)) return <NotYet of={children} />
  if (!child) {
    return (
      <Page>
        <Requests />
        <Empty symbol="home-heart" title={t('family')}>
          {t('noChildren')}
        </Empty>
      </Page>
    )
  }
  return (
    <Page max={820}>
      <ChildHead child={child} />
      <Requests onAnswer={() => setChosen(child.id)} />
      {children.data.length > 1 ? (
        <Bar role="tablist" aria-label={t('children')} wrap align="stretch">
          {children.data.map((other) => (
            <Press
              key={other.id}
              role="tab"
              selected={other.id === child.id}
              label={other.firstName}
              onPress={() => setChosen(other.id)}
              style={{
                flexDirection: 'row',
                alignItems: 'center',
                gap: space.near,
                minHeight: targets.adult,
                paddingHorizontal: space.apart,
                borderRadius: corners.button,
                backgroundColor: other.id === child.id ? colours.aubergineTint : colours.sheet,
              }}
            >
              <Peg peg={other.peg} size={30} />
              <Text variant={other.id === child.id ? 'labelMedium' : 'bodyMedium'}>
                {other.firstName}
              </Text>
            </Press>
          ))}
        </Bar>
      ) : null}
      {child.shared ? (
        <Work child={child} />
      ) : (
        <>
          <Empty symbol="eyeoff" title={t('notShared')}>
            {t('notSharedHelp')}
          </Empty>
          <FromSchool child={child} />
        </>
      )}
    </Page>
  )
}

/** Notices of the child's own class. */
const FromSchool = ({ child }: { child: Child }) => (
  <NoticesFor title={t('notices')} keepSeen classId={child.classId} />
)

function ChildHead({ child }: { child: Child }) {
  const session = useSession()
  const signOut = useSignOut()
  const [asking, setAsking] = useState(false)
  return (
    <Bar gap="apart">
      <Peg peg={child.peg} size={56} />
      <View style={{ flex: 1 }}>
        <Heading level={1}>{child.firstName}</Heading>
        <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {[session.data?.school?.name, child.className && t('class', { name: child.className })]
            .filter(Boolean)
            .join(', ')}
        </Text>
      </View>
      <RoundButton
        label={t('signOut')}
        symbol="out"
        size={targets.adult}
        colour={colours.inkSoft}
        onPress={() => setAsking(true)}
      />
      <Ask
        visible={asking}
        title={t('signOutAsk')}
        yes={t('signOut')}
        no={t('stay')}
        onNo={() => setAsking(false)}
        onYes={() => signOut.mutate(undefined, { onSettled: () => router.replace('/sign-in') })}
      >
        {t('signOutHelp')}
      </Ask>
    </Bar>
  )
}

function Work({ child }: { child: Child }) {
  const work = useChildWork(child.id, child.shared)
  const [openId, setOpenId] = useState<string | null>(null)
  const { width } = useWidth()
  if (!isHere(work)) return <NotYet of={work} />
  const { newest, chapters } = work.data
  if (!newest) {
    return (
      <>
        <Empty symbol="home-heart" title={t('nothingYet')}>
          {t('nothingYetHelp')}
        </Empty>
        <FromSchool child={child} />
      </>
    )
  }
  const open = chapters.flatMap(({ pieces }) => pieces).find(({ id }) => id === openId)
  const tile = Math.min(190, (Math.min(width, 820) - 40 - 18) / 2)
  return (
    <Stack gap="off">
      <SharedPieceView piece={newest} height={Math.min(460, width * 0.72)} />
      <FamilyComments key={newest.id} pieceId={newest.id} childName={child.firstName} />
      <FromSchool child={child} />
      <TakeHome key={child.id} pupilId={child.id} chapters={chapters} />
      {chapters.map((chapter) => (
        <Stack key={chapter.term.id} role="region" aria-label={chapter.term.name}>
          <Heading count={chapter.pieces.length}>{chapter.term.name}</Heading>
          <Grid>
            {chapter.pieces.map((piece) => (
              <Press
                key={piece.id}
                label={piece.title}
                onPress={() => setOpenId(piece.id)}
                style={{ width: tile, gap: space.close }}
              >
                <Sheet
                  piece={{ cover: piece.parts[0] ?? null, state: 'approved', title: piece.title }}
                  width={tile}
                />
                <Text variant="titleSmall" numberOfLines={2}>
                  {piece.title}
                </Text>
              </Press>
            ))}
          </Grid>
        </Stack>
      ))}
      {/* What may not be seen any more is gone while it is looked at, too. */}
      {open ? (
        <OpenedPiece piece={open} childName={child.firstName} onClose={() => setOpenId(null)} />
      ) : null}
    </Stack>
  )
}

type Opened = { piece: SharedPiece; childName: string; onClose: () => void }

/** A piece over the whole page, until it is closed, by Back too. */
const OpenedPiece = (opened: Opened) => (
  <Portal>
    <OverThePage {...opened} />
  </Portal>
)

function OverThePage({ piece, childName, onClose }: Opened) {
  const { width } = useWidth()
  useUntilBack(true, onClose)
  const page = useFocusHeld(onClose)
  return (
    <View
      ref={page}
      role="dialog"
      aria-modal
      aria-label={piece.title}
      tabIndex={-1}
      style={{ position: 'absolute', inset: 0, backgroundColor: colours.paper }}
    >
      <ScrollView
        contentContainerStyle={{
          padding: space.clear,
          gap: space.near,
          width: '100%',
          maxWidth: 900,
          alignSelf: 'center',
        }}
      >
        <View style={{ alignItems: 'flex-end' }}>
          <RoundButton label={t('close')} symbol="close" onPress={onClose} />
        </View>
        <SharedPieceView piece={piece} height={Math.min(620, width * 0.8)} />
        <FamilyComments pieceId={piece.id} childName={childName} />
      </ScrollView>
    </View>
  )
}
