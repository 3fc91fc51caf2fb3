import type { PieceLine } from '@nibquill/contract'
import { useLocalSearchParams } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { useWhen } from '../kit/useWhen'
import { Box, Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Bar, Page } from '../kit/layout'
import { Empty, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { toast } from '../kit/Toast'
import { piecesWords } from '../pieces'
import { PieceRow } from './PieceRow'
import { useDrafts, useNudgeDrafts } from './reviewQueries'
import { t } from './words'

/** What has something in it and is not handed in: its teacher can ask for it. */
export function DraftsScreen() {
  const { class: classId } = useLocalSearchParams<{ class?: string }>()
  const drafts = useDrafts(classId)
  const nudge = useNudgeDrafts()
  if (!isHere(drafts)) return <NotYet of={drafts} />
  const pieces = drafts.data.pages.flatMap((page) => page.pieces)
  const ask = (pieceIds: string[]) =>
    nudge.mutate(pieceIds, { onSuccess: ({ asked }) => toast(t('asked', { count: asked })) })
  const notAsked = pieces.filter(({ nudgedAt }) => nudgedAt === null).slice(0, MOST_AT_ONCE)
  return (
    <Page max={820}>
      <Head title={t('draftsTitle')} back="/tray" />
      {notAsked.length > 1 ? (
        <Bar>
          <BigButton
            small
            tone="quiet"
            symbol="nudge"
            label={t('askAll', { count: notAsked.length })}
            busy={nudge.isPending}
            onPress={() => ask(notAsked.map(({ id }) => id))}
          />
        </Bar>
      ) : null}
      {nudge.isError ? <ProblemNotice error={nudge.error} /> : null}
      {pieces.length > 0 ? (
        <Box>
          <View role="list" aria-label={t('draftsTitle')}>
            {pieces.map((piece) => (
              <DraftLine key={piece.id} piece={piece} onAsk={() => ask([piece.id])} />
            ))}
          </View>
        </Box>
      ) : (
        <Empty symbol="tray" title={t('noDrafts')} />
      )}
      {drafts.hasNextPage ? (
        <BigButton
          small
          tone="quiet"
          label={t('more')}
          busy={drafts.isFetchingNextPage}
          onPress={() => void drafts.fetchNextPage()}
        />
      ) : null}
    </Page>
  )
}
const MOST_AT_ONCE = 100

function DraftLine({ piece, onAsk }: { piece: PieceLine; onAsk: () => void }) {
  const { whenWasIt } = useWhen()
  const { pupil, title, task, changedAt, nudgedAt } = piece
  const name = `${pupil.firstName} ${pupil.lastName}`
  return (
    <PieceRow
      pieceId={piece.id}
      pupil={pupil}
      aside={
        nudgedAt ? null : (
          <BigButton small tone="quiet" symbol="nudge" label={t('ask')} onPress={onAsk} />
        )
      }
    >
      <Text variant="titleSmall">{name}</Text>
      <Text variant="bodyMedium" numberOfLines={1}>
        {title || task?.title || piecesWords('untitled')}
      </Text>
      <Hint>
        {nudgedAt
          ? t('askedAt', { when: whenWasIt(nudgedAt) })
          : t('changedAt', { when: whenWasIt(changedAt) })}
      </Hint>
    </PieceRow>
  )
}
