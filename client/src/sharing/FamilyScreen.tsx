import type { Child, SharedPiece } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState } from 'react'
import { ScrollView, View } from 'react-native'
import { Portal, Text } from 'react-native-paper'
import { useSession, useSignOut } from '../accounts'
import { Grid, Heading, Page, useWidth } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Peg } from '../kit/Peg'
import { Press } from '../kit/Press'
import { RoundButton } from '../kit/RoundButton'
import { Sheet } from '../parts/Sheet'
import { colours, corners, targets } from '../kit/theme'
import { Requests } from './Requests'
import { SharedPieceView } from './SharedPieceView'
import { useChildren, useChildWork } from './sharingQueries'
import { NoticesFor } from '../notices'
import { strings } from './strings'

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
        <Empty symbol="home-heart" title={strings.family}>
          {strings.noChildren}
        </Empty>
      </Page>
    )
  }
  return (
    <Page max={820}>
      <ChildHead child={child} />
      <Requests onAnswer={() => setChosen(child.id)} />
      {children.data.length > 1 ? (
        <View
          role="tablist"
          aria-label={strings.children}
          style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}
        >
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
                gap: 8,
                minHeight: targets.adult,
                paddingHorizontal: 12,
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
        </View>
      ) : null}
      <NoticesFor title={strings.notices} keepSeen />
      {child.shared ? (
        <Work child={child} />
      ) : (
        <Empty symbol="eyeoff" title={strings.notShared}>
          {strings.notSharedHelp}
        </Empty>
      )}
    </Page>
  )
}

function ChildHead({ child }: { child: Child }) {
  const session = useSession()
  const signOut = useSignOut()
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: 14 }}>
      <Peg peg={child.peg} size={56} />
      <View style={{ flex: 1 }}>
        <Heading level={1}>{child.firstName}</Heading>
        <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {strings.from(session.data?.school?.name ?? '', child.className)}
        </Text>
      </View>
      <RoundButton
        label={strings.signOut}
        symbol="out"
        size={targets.adult}
        colour={colours.inkSoft}
        onPress={() => signOut.mutate(undefined, { onSettled: () => router.replace('/sign-in') })}
      />
    </View>
  )
}

function Work({ child }: { child: Child }) {
  const work = useChildWork(child.id, child.shared)
  const [open, setOpen] = useState<SharedPiece | null>(null)
  const { width } = useWidth()
  if (!isHere(work)) return <NotYet of={work} />
  const { newest, chapters } = work.data
  if (!newest) {
    return (
      <Empty symbol="home-heart" title={strings.nothingYet}>
        {strings.nothingYetHelp}
      </Empty>
    )
  }
  const tile = Math.min(190, (Math.min(width, 820) - 40 - 18) / 2)
  return (
    <View style={{ gap: 28 }}>
      <SharedPieceView piece={newest} height={Math.min(460, width * 0.72)} />
      {chapters.map((chapter) => (
        <View
          key={chapter.term.id}
          role="region"
          aria-label={chapter.term.name}
          style={{ gap: 14 }}
        >
          <Heading count={chapter.pieces.length}>{chapter.term.name}</Heading>
          <Grid>
            {chapter.pieces.map((piece) => (
              <Press
                key={piece.id}
                label={piece.title}
                onPress={() => setOpen(piece)}
                style={{ width: tile, gap: 6 }}
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
        </View>
      ))}
      {open ? (
        <Portal>
          <View
            role="dialog"
            aria-modal
            aria-label={open.title}
            style={{ position: 'absolute', inset: 0, backgroundColor: colours.paper }}
          >
            <ScrollView
              contentContainerStyle={{
                padding: 16,
                gap: 10,
                width: '100%',
                maxWidth: 900,
                alignSelf: 'center',
              }}
            >
              <View style={{ alignItems: 'flex-end' }}>
                <RoundButton label={strings.close} symbol="close" onPress={() => setOpen(null)} />
              </View>
              <SharedPieceView piece={open} height={Math.min(620, width * 0.8)} />
            </ScrollView>
          </View>
        </Portal>
      ) : null}
    </View>
  )
}
