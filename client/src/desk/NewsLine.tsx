import { router } from 'expo-router'
import { useEffect } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Bar } from '../kit/layout'
import { Notice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { colours, space, targets } from '../kit/theme'
import { useMarkNewsSeen } from '../notices'
import { ListenToNews, newsText, placeOf, unseenIn, useMyNews } from './newsOf'
import { t } from './words'

/**
 * The newest thing that happened, in one line; tapped, it opens the piece. It counts as seen once
 * it has been on screen.
 */
export function NewsLine({ again }: { again: readonly string[] }) {
  const news = useMyNews()
  const markSeen = useMarkNewsSeen()
  // What came back for another go stands below, with what was said of it.
  const newest = news.find(({ kind, pieceId }) => kind !== 'returned' || !again.includes(pieceId))
  const unseen = unseenIn(news)
  const mark = markSeen.mutate
  useEffect(() => {
    if (unseen === '') return
    const timer = setTimeout(() => mark(unseen.split(' ')), 8000)
    return () => clearTimeout(timer)
  }, [unseen, mark])
  if (!newest) return null
  return (
    <View role="region" aria-label={t('news')}>
      <Notice tone="news" symbol="quill" action={<ListenToNews item={newest} />}>
        <Bar wrap between gap="none">
          <Press
            role="link"
            label={newsText(newest)}
            onPress={() => router.push(placeOf(newest) ?? '/my-news')}
            style={{ minHeight: 40, justifyContent: 'center', flexShrink: 1 }}
          >
            <Text variant={newest.seen ? 'bodyLarge' : 'titleMedium'}>{newsText(newest)}</Text>
          </Press>
          {news.length > 1 ? (
            <Press role="link" onPress={() => router.push('/my-news')} style={MORE}>
              <Text variant="labelMedium" style={{ color: colours.sea }}>
                {t('allNews')}
              </Text>
            </Press>
          ) : null}
        </Bar>
      </Notice>
    </View>
  )
}

/** Easily hit, without pushing what lies below further down. */
const MORE = {
  ...{ minHeight: targets.pupil, marginVertical: -8, paddingRight: space.apart },
  justifyContent: 'center',
} as const
