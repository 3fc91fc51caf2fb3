import { ProgressBar } from 'react-native-paper'
import { colours } from './theme'

/** How far something is. @param share - 0 to 1. @param label - The same in words, for listeners. */
export const Progress = ({
  share,
  label,
  back = colours.rule,
}: {
  share: number
  label: string
  back?: string
}) => (
  <ProgressBar
    progress={share}
    aria-label={label}
    color={colours.aubergine}
    style={{ height: 8, borderRadius: 4, backgroundColor: back }}
  />
)
