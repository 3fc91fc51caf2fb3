import type { IntentKind } from '@nibquill/core'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Listen } from '../kit/Listen'
import { Notice } from '../kit/Notice'
import { useOutbox, useWaiting } from '../outbox/OutboxContext'
import type { Waiting } from '../outbox/outbox'
import { t } from './words'
import { Stack } from '../kit/layout'

/** What a part's own tile says. */
const ON_TILES: readonly IntentKind[] = ['file', 'add-part']

/**
 * What keeps something of a piece from the school, and what can be done: two tablets that differ, a
 * refusal, or a tablet that keeps nothing.
 */
export function PieceTrouble({ pieceId }: { pieceId: string }) {
  const outbox = useOutbox()
  const waiting = useWaiting(pieceId)
  const refused = waiting.filter(
    ({ standing, intent }) => standing === 'refused' && !ON_TILES.includes(intent.kind),
  )
  const asks = waiting.filter(({ standing }) => standing === 'asks')
  const notKept = waiting.some(({ kept, standing }) => !kept && standing === 'stuck')
  return (
    <>
      {notKept ? (
        <Notice tone="attention" symbol="alert">
          {t('wordsNotKept')}
        </Notice>
      ) : null}
      {refused.map((line) => (
        <Notice
          key={line.id}
          tone="again"
          symbol="alert"
          action={
            <Stack gap="close">
              <BigButton
                small
                tone="quiet"
                label={t('tryOnceMore')}
                onPress={() => outbox.retry([line.id])}
              />
              <BigButton
                small
                tone="quiet"
                label={t('understood')}
                onPress={() => void outbox.forget([line.id])}
              />
            </Stack>
          }
        >
          {line.sentence ?? ''}
        </Notice>
      ))}
      {asks.map((line) => (
        <TwoTablets key={line.id} line={line} />
      ))}
    </>
  )
}

function TwoTablets({ line }: { line: Waiting }) {
  const outbox = useOutbox()
  return (
    <Stack role="group" aria-label={t('twoTablets')} gap="near">
      <Notice tone="attention" symbol="duplicate" action={<Listen text={t('twoTablets')} />}>
        {t('twoTablets')}
      </Notice>
      {(['mine', 'theirs'] as const).map((whose) => (
        <Stack key={whose} gap="close">
          <Text variant="labelMedium">{t(`whose.${whose}`)}</Text>
          <Text variant="bodyLarge" numberOfLines={12}>
            {saidBy(line, whose) || t('untitled')}
          </Text>
          <BigButton
            tone="quiet"
            label={t(`take.${whose}`)}
            onPress={() => void outbox.choose(line.id, whose)}
          />
        </Stack>
      ))}
    </Stack>
  )
}

function saidBy({ intent, theirs }: Waiting, whose: 'mine' | 'theirs'): string {
  if (intent.kind === 'content')
    return whose === 'mine' ? intent.text : theirs && 'text' in theirs ? theirs.text : ''
  const words =
    whose === 'mine'
      ? intent.kind === 'words' && intent.words
      : theirs && 'words' in theirs && theirs.words
  return words ? [words.title, words.reflection].filter(Boolean).join(' – ') : ''
}
