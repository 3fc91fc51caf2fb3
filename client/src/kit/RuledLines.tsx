import { View } from 'react-native'
import { colours } from './theme'

/** What stands where there is no picture: lines to write on. */
export function RuledLines() {
  return (
    <View
      style={{ flex: 1, justifyContent: 'space-evenly', backgroundColor: colours.writingPaper }}
    >
      {[0, 1, 2, 3].map((line) => (
        <View key={line} style={{ height: 2, backgroundColor: colours.rule }} />
      ))}
    </View>
  )
}
