import type { LinkPart } from '@nibquill/contract'
import { hostOf } from '@nibquill/core'
import { View, type ViewStyle } from 'react-native'
import { Text } from 'react-native-paper'
import { Stack } from '../kit/layout'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, space } from '../kit/theme'
import type { PartViewProps } from './partKinds'
import { t } from './words'

/** Where it leads: the host is said, never only a name somebody chose. */
export function LinkSheet({ part, alt }: PartViewProps<LinkPart>) {
  return (
    <View
      {...(alt ? { role: 'img' as const, 'aria-label': alt } : { 'aria-hidden': true })}
      style={SHEET}
    >
      <DrawnSymbol name="link" size={28} colour={colours.sea} />
      <Text variant="labelSmall" numberOfLines={1} style={{ textAlign: 'center' }}>
        {hostOf(part.address)}
      </Text>
    </View>
  )
}
const SHEET: ViewStyle = {
  ...{ flex: 1, alignItems: 'center', justifyContent: 'center', gap: space.tight },
  ...{ padding: space.near, backgroundColor: colours.seaTint },
}

/** To be followed: it opens beside Nibquill, and is told nothing of where one came from. */
export function LinkStage({ part, alt }: PartViewProps<LinkPart>) {
  const host = hostOf(part.address)
  return (
    <Stack gap="clear" style={STAGE}>
      <DrawnSymbol name="link" size={56} colour={colours.sea} />
      <Text variant="titleLarge" style={{ textAlign: 'center' }}>
        {part.name || host}
      </Text>
      <a
        href={part.address}
        target="_blank"
        rel="noopener noreferrer nofollow"
        aria-label={`${t('openLink', { host })}. ${alt}`}
        style={{
          ...{ padding: `${space.clear}px ${space.far}px`, borderRadius: corners.button },
          ...{ backgroundColor: colours.aubergine, color: colours.sheet },
          ...{ fontSize: 19, textDecoration: 'none', fontFamily: 'AndikaBold, sans-serif' },
        }}
      >
        {t('openLink', { host })}
      </a>
      <Text
        variant="bodyMedium"
        numberOfLines={3}
        style={{ color: colours.inkSoft, textAlign: 'center', wordBreak: 'break-all' } as object}
      >
        {part.address}
      </Text>
    </Stack>
  )
}
const STAGE: ViewStyle = {
  ...{ width: '100%', maxWidth: 560, alignSelf: 'center', alignItems: 'center' },
  ...{ padding: space.far, backgroundColor: colours.sheet, borderRadius: corners.button },
}
