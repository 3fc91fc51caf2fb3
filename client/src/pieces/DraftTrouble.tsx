import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Notice } from '../kit/Notice'
import type { Draft } from './drafts'
import { strings } from './strings'
import { drafts } from './uploads'

/**
 * What keeps a draft's words from the school, and what can be done: two tablets that differ, or a
 * refusal.
 */
export function DraftTrouble({ draft }: { draft: Draft | undefined }) {
  if (!draft) return null
  if (!draft.kept && draft.state !== 'sending') {
    return (
      <Notice tone="attention" symbol="alert">
        {strings.wordsNotKept}
      </Notice>
    )
  }
  if (draft.state === 'refused') {
    return (
      <Notice
        tone="again"
        symbol="alert"
        action={
          <BigButton
            small
            tone="quiet"
            label={strings.understood}
            onPress={() => void drafts.keepOut(draft.pieceId)}
          />
        }
      >
        {draft.sentence ?? ''}
      </Notice>
    )
  }
  if (draft.state !== 'asks' || !draft.theirs) return null
  return (
    <View role="group" aria-label={strings.twoTablets} style={{ gap: 10 }}>
      <Notice tone="attention" symbol="duplicate">
        {strings.twoTablets}
      </Notice>
      {(['mine', 'theirs'] as const).map((whose) => {
        const words = whose === 'mine' ? draft.words : draft.theirs!
        return (
          <View key={whose} style={{ gap: 6 }}>
            <Text variant="labelMedium">{strings.whose[whose]}</Text>
            <Text variant="bodyLarge">
              {[words.title, words.reflection].filter(Boolean).join(' – ') || strings.untitled}
            </Text>
            <BigButton
              tone="quiet"
              label={strings.take[whose]}
              onPress={() => void drafts.choose(draft.pieceId, whose)}
            />
          </View>
        )
      })}
    </View>
  )
}
