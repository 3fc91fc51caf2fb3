import type { Place } from '@nibquill/core/review/sitting'
import { useEffect, useRef } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Bar, useWidth } from '../kit/layout'
import { RoundButton } from '../kit/RoundButton'

import { colours, space, targets } from '../kit/theme'
import { useTitle } from '../kit/useTitle'
import { t } from './words'
import { t as kitWords } from '../kit/words'

type HeadProps = {
  title: string
  goes: number
  place: Place
  back?: string | undefined
  onGo: (pieceId: string | null) => void
  onKeys: () => void
}

/** What lies on the judging desk, and the way to the next one. */
export function DeskHead({ title, goes, place, back, onGo, onKeys }: HeadProps) {
  const { wide } = useWidth()
  const { number, of, nextId, previousId } = place
  const heading = useFocusFirst()
  useTitle(title)
  return (
    <Bar gap="close" style={{ paddingHorizontal: space.apart, paddingVertical: space.near }}>
      {wide ? null : (
        <RoundButton
          label={back ?? t('backToTray')}
          symbol="back"
          size={targets.adult}
          onPress={() => onGo(null)}
        />
      )}
      <View style={{ flex: 1 }}>
        <View ref={heading} role="heading" aria-level={2} tabIndex={-1}>
          <Text variant="headlineSmall" numberOfLines={2}>
            {title}
          </Text>
        </View>
        <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
          {[
            number > 0 ? t('placeOf', { number, of }) : '',
            goes > 1 ? kitWords('goes', { goes }) : '',
          ]
            .filter(Boolean)
            .join(' · ')}
        </Text>
      </View>
      {wide ? (
        <RoundButton label={t('shortcuts')} symbol="help" size={targets.adult} onPress={onKeys} />
      ) : null}
      <RoundButton
        label={t('previous')}
        symbol="previous"
        size={targets.adult}
        disabled={!previousId}
        onPress={() => onGo(previousId)}
      />
      <RoundButton
        label={t('next')}
        symbol="next"
        size={targets.adult}
        disabled={!nextId}
        onPress={() => onGo(nextId)}
      />
    </Bar>
  )
}

/** What has come onto the desk is where the keyboard goes on from. */
function useFocusFirst() {
  const first = useRef<View>(null)
  useEffect(() => {
    ;(first.current as unknown as HTMLElement | null)?.focus({ preventScroll: true })
  }, [])
  return first
}
