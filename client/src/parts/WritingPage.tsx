import type { WritingPart } from '@nibquill/contract'
import { countWords } from '@nibquill/core'
import { ScrollView, View } from 'react-native'
import { Text } from 'react-native-paper'
import { Listen } from '../kit/Listen'
import { RuledLines } from '../kit/RuledLines'
import { colours, corners, RULED, space } from '../kit/theme'
import type { PartViewProps } from './partKinds'
import { t } from './words'
import { Bar } from '../kit/layout'

/** The beginning of a writing, as it stands for the whole in a list. */
export function WritingSheet({ text, size }: { text: string; size: 'small' | 'large' }) {
  const small = size === 'small'
  if (text.trim() === '') return <RuledLines />
  return (
    <View
      style={{
        flex: 1,
        height: '100%',
        overflow: 'hidden',
        backgroundColor: colours.writingPaper,
        padding: small ? 6 : 14,
      }}
    >
      <Text
        variant="bodyLarge"
        numberOfLines={small ? 5 : 10}
        style={small ? { fontSize: 13, lineHeight: 17 } : undefined}
      >
        {text}
      </Text>
    </View>
  )
}

/** A writing to be read, in the lines it was written in, on ruled paper. */
export function WritingPage({ part, alt }: PartViewProps<WritingPart>) {
  const words = countWords(part.text)
  return (
    <View
      role="group"
      aria-label={alt}
      style={{
        flex: 1,
        minHeight: 220,
        backgroundColor: colours.writingPaper,
        borderRadius: corners.sheet,
        borderWidth: 1,
        borderColor: colours.rule,
        overflow: 'hidden',
      }}
    >
      <ScrollView contentContainerStyle={{ padding: space.far, flexGrow: 1 }}>
        {words === 0 ? (
          <Text variant="bodyLarge" style={{ color: colours.inkSoft }}>
            {t('nothingWritten')}
          </Text>
        ) : (
          <View style={[RULED.paper, { flexGrow: 1 }]}>
            <Text style={RULED.words} selectable>
              {part.text}
            </Text>
          </View>
        )}
      </ScrollView>
      <Bar
        gap="none"
        style={{
          paddingHorizontal: space.apart,
          borderTopWidth: 1,
          borderTopColor: colours.rule,
          backgroundColor: colours.sheet,
        }}
      >
        <Text variant="bodySmall" style={{ flex: 1, color: colours.inkSoft }}>
          {t('words', { count: words })}
        </Text>
        {words > 0 ? <Listen text={part.text} /> : null}
      </Bar>
    </View>
  )
}
