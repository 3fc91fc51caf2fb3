import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useWidth } from '../kit/layout'
import { RoundButton } from '../kit/RoundButton'
import { strings as kitWords } from '../kit/strings'
import { colours, targets } from '../kit/theme'
import { strings } from './strings'

type HeadProps = {
  title: string
  goes: number
  nextId: string | undefined
  previousId: string | undefined
  onGo: (pieceId: string | undefined) => void
  onKeys: () => void
}

/** What lies on the judging desk, and the way to the next one. */
export function DeskHead({ title, goes, nextId, previousId, onGo, onKeys }: HeadProps) {
  const { wide } = useWidth()
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'center',
        paddingHorizontal: 14,
        paddingVertical: 8,
        gap: 6,
      }}
    >
      {wide ? null : (
        <RoundButton
          label={strings.backToTray}
          symbol="back"
          size={targets.adult}
          onPress={() => onGo(undefined)}
        />
      )}
      <View style={{ flex: 1 }}>
        <Text role="heading" aria-level={2} variant="headlineSmall" numberOfLines={2}>
          {title}
        </Text>
        {goes > 1 ? (
          <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
            {kitWords.goes(goes)}
          </Text>
        ) : null}
      </View>
      {wide ? (
        <RoundButton
          label={strings.shortcuts}
          symbol="help"
          size={targets.adult}
          onPress={onKeys}
        />
      ) : null}
      <RoundButton
        label={strings.previous}
        symbol="previous"
        size={targets.adult}
        disabled={!previousId}
        onPress={() => onGo(previousId)}
      />
      <RoundButton
        label={strings.next}
        symbol="next"
        size={targets.adult}
        disabled={!nextId}
        onPress={() => onGo(nextId)}
      />
    </View>
  )
}
