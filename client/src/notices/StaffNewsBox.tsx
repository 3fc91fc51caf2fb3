import type { SaidNews, StaffNews } from '@nibquill/contract'
import { router } from 'expo-router'
import { useState } from 'react'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { useWhen } from '../kit/useWhen'
import { Box } from '../kit/form'
import { Press } from '../kit/Press'
import { colours } from '../kit/theme'
import { useMarkNewsSeen, useNews } from './noticesQueries'
import { t } from './words'
import { Bar } from '../kit/layout'

/** What other staff did that one should know of, and what was said to staff alone; not put away yet. */
const useStaffNews = () =>
  (useNews().data ?? []).filter(
    (item): item is StaffNews | SaidNews =>
      ('by' in item || item.kind === 'private-word') && !item.seen,
  )

/**
 * What there was to know of when a screen came, and how much came since: shown above what one works
 * in, that would push it from under the hand.
 */
export function useNewsAtStart() {
  const ids = useStaffNews().map(({ id }) => id)
  const [shown, setShown] = useState<ReadonlySet<string>>(new Set(ids))
  return {
    shown,
    late: ids.filter((id) => !shown.has(id)).length,
    showLate: () => setShown(new Set(ids)),
  }
}

/**
 * What a teacher should know of, until it is put away.
 * @param only - What there is of these, by their ids.
 */
export function StaffNewsBox({ only }: { only: ReadonlySet<string> }) {
  const { whenWasIt } = useWhen()
  const seen = useMarkNewsSeen()
  const fresh = useStaffNews().filter(({ id }) => only.has(id))
  if (fresh.length === 0) return null
  return (
    <Box title={t('staffNews')}>
      {fresh.map((item) =>
        'by' in item ? (
          <Text key={item.id} variant="bodyMedium">
            {sentence(item, whenWasIt(item.happenedAt))}
          </Text>
        ) : (
          <Press key={item.id} role="link" onPress={() => router.push(`/tray/${item.pieceId}`)}>
            <Text variant="bodyMedium" style={{ color: colours.sea }}>
              {t('saidPrivately', { name: item.from, title: item.pieceTitle })}
            </Text>
          </Press>
        ),
      )}
      <Bar wrap>
        <BigButton
          small
          tone="quiet"
          symbol="check"
          label={t('putNewsAway')}
          busy={seen.isPending}
          onPress={() => seen.mutate(fresh.map(({ id }) => id))}
        />
      </Bar>
    </Box>
  )
}

/** What there was to know of when the screen came; what comes later is there when it comes again. */
export function StaffNewsAtStart() {
  return <StaffNewsBox only={useNewsAtStart().shown} />
}

function sentence({ kind, by, about, className }: StaffNews, when: string): string {
  const whom = about ?? t('wholeClass', { name: className ?? '' })
  return kind === 'name-card'
    ? t('newCard', { by, whom, when })
    : t('letterOpened', { by, whom, when })
}
