import { ActivityIndicator, View } from 'react-native'

/**
 * Something is under way. What it is stands beside it in words, so listeners are not told twice.
 * React Native's own is turned by the page's style; the widget library's runs script for each frame.
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
