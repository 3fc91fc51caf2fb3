// The least page of the same libraries: the floor for how much script a first screen may need.
import { createElement } from 'react'
import { Button, PaperProvider, Text } from 'react-native-paper'

export default function Bare() {
  return createElement(
    PaperProvider,
    null,
    createElement(Text, null, 'Nothing yet'),
    createElement(Button, { onPress: () => undefined }, 'Begin'),
  )
}
