import { Text } from 'react-native-paper'
import { Press } from '../kit/Press'
import { colours, corners, space, targets } from '../kit/theme'
import type { useNewsAtStart } from '../notices'
import { t } from './words'

function NewLine({ what, onShow }: { what: string; onShow: () => void }) {
  const says = `${what}, ${t('showNew')}`
  return (
    <Press
      label={says}
      onPress={onShow}
      style={{
        backgroundColor: colours.ochreTint,
        borderRadius: corners.button,
        margin: space.near,
        padding: space.apart,
        minHeight: targets.adult,
        justifyContent: 'center',
      }}
    >
      <Text variant="labelMedium" style={{ color: colours.ochreText }}>
        {says}
      </Text>
    </Press>
  )
}

/**
 * What came meanwhile, in lines below the list: shown when it is wanted, so that the list stays under
 * the hand.
 * @param fresh - Pieces, by their ids.
 */
export function WhatIsNew({
  fresh,
  news,
  onShowFresh,
  onShowNews,
}: {
  fresh: readonly string[]
  news: ReturnType<typeof useNewsAtStart>
  onShowFresh: () => void
  onShowNews: () => void
}) {
  return (
    <>
      {news.late > 0 ? (
        <NewLine
          what={t('newsSince', { count: news.late })}
          onShow={() => {
            news.showLate()
            onShowNews()
          }}
        />
      ) : null}
      {fresh.length > 0 ? (
        <NewLine what={t('newSince', { count: fresh.length })} onShow={onShowFresh} />
      ) : null}
    </>
  )
}
