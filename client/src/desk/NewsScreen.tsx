import { router } from 'expo-router'
import { useEffect } from 'react'
import { View, type ViewStyle } from 'react-native'
import { Text } from 'react-native-paper'
import { useWhen } from '../kit/useWhen'
import { Head } from '../kit/Head'
import { Bar, Page, Tile } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Press } from '../kit/Press'
import { DrawnSymbol, type SymbolName } from '../kit/DrawnSymbol'
import { colours, space, targets } from '../kit/theme'
import { useMarkNewsSeen, useNews } from '../notices'
import {
  ListenToNews,
  newsText,
  placeOf,
  unseenIn,
  useMyNews,
  wordsWith,
  type MyNews,
} from './newsOf'
import { t } from './words'

const SYMBOLS: Record<MyNews['kind'], SymbolName> = {
  approved: 'in-folder',
  returned: 'again',
  commented: 'message',
  'private-word': 'lock',
  binned: 'bin',
}

/** All that happened to my work, newest first; each leads to its piece and can be heard. */
export function NewsScreen() {
  const asked = useNews()
  const news = useMyNews()
  const mark = useMarkNewsSeen().mutate
  const unseen = unseenIn(news)
  useEffect(() => {
    if (unseen !== '') mark(unseen.split(' '))
  }, [unseen, mark])
  if (!isHere(asked)) return <NotYet of={asked} />
  return (
    <Page>
      <Head pupil title={t('news')} back="/desk" />
      {news.length === 0 ? <Empty symbol="quill" title={t('noNews')} /> : null}
      <View role="list" aria-label={t('news')} style={{ gap: space.apart }}>
        {news.map((item) => (
          <NewsCard key={item.id} item={item} />
        ))}
      </View>
    </Page>
  )
}

function NewsCard({ item }: { item: MyNews }) {
  const { whenWasIt } = useWhen()
  const words = wordsWith(item)
  const place = placeOf(item)
  const what = (
    <>
      <DrawnSymbol name={SYMBOLS[item.kind]} size={30} colour={colours.aubergine} />
      <View style={{ flex: 1 }}>
        <Text variant="titleMedium">{newsText(item)}</Text>
        {words ? <Text variant="bodyLarge">{words}</Text> : null}
        <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
          {whenWasIt(item.happenedAt)}
        </Text>
      </View>
    </>
  )
  return (
    <Tile role="listitem" style={{ padding: space.apart }}>
      <Bar gap="apart">
        {place ? (
          <Press role="link" onPress={() => router.push(place)} style={LINE}>
            {what}
          </Press>
        ) : (
          <View style={LINE}>{what}</View>
        )}
        <ListenToNews item={item} />
      </Bar>
    </Tile>
  )
}

const LINE: ViewStyle = {
  ...{ flex: 1, minHeight: targets.pupil, gap: space.apart },
  flexDirection: 'row',
  alignItems: 'center',
}
