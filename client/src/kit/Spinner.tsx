import { View } from 'react-native'
import { ActivityIndicator } from 'react-native-paper'

/**
 * Something is under way. What it is stands beside it in words, so listeners are not told twice.
 */
export const Spinner = ({
  size = 'small',
  colour,
}: {
  size?: 'small' | 'large' | number
  colour: string
}) => (
  <View aria-hidden>
    <ActivityIndicator size={size} color={colour} />
  </View>
)
