import { View, type ViewStyle } from 'react-native'
import { Text } from 'react-native-paper'
import { Listen } from '../kit/Listen'
import { Bar } from '../kit/layout'
import { colours, corners, space } from '../kit/theme'
import { t } from './words'

type Said = { text: string; typed: string }
/** Its makers' own words go before those of a teacher. */
export const inWords = ({ text, typed }: Said): string => (text.trim() === '' ? typed : text).trim()

/**
 * What is said in a recording, for those who read it rather than hear it: in its makers' own words,
 * or as a teacher typed it.
 */
export function InWords({ part }: { part: Said }) {
  const text = inWords(part)
  if (text === '') return null
  return (
    <View role="group" aria-label={t('inWords')} style={SHEET}>
      <Bar gap="near" align="flex-start">
        <Text variant="bodyLarge" style={{ flex: 1 }}>
          {text}
        </Text>
        <Listen text={text} />
      </Bar>
    </View>
  )
}
const SHEET: ViewStyle = {
  ...{ padding: space.apart, borderRadius: corners.sheet },
  backgroundColor: colours.writingPaper,
}
