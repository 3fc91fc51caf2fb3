import { Text } from 'react-native-paper'
import { View } from 'react-native'
import { useContext } from 'react'
import { ForPupil } from './forPupil'
import { Press } from './Press'
import { Spinner } from './Spinner'
import { DrawnSymbol, type SymbolName } from './DrawnSymbol'
import { colours, corners, space, targets } from './theme'

type Tone = 'primary' | 'good' | 'again' | 'quiet'
const TONES: Record<Tone, { back: string; text: string; edge: string }> = {
  primary: { back: colours.aubergine, text: colours.sheet, edge: colours.aubergine },
  good: { back: colours.verdigris, text: colours.sheet, edge: colours.verdigris },
  again: { back: colours.sheet, text: colours.clay, edge: colours.clay },
  quiet: { back: colours.sheet, text: colours.aubergine, edge: colours.rule },
}

type Props = {
  label: string
  onPress: () => void
  symbol?: SymbolName
  tone?: Tone
  busy?: boolean
  disabled?: boolean
  grow?: boolean
  /** Keyboard key that does the same, shown on wide screens. */
  shortcut?: string
  /** Beside other things; for pupils no lower than the others. */
  small?: boolean
  /** The one thing a screen is for. */
  huge?: boolean
}

/** The one main thing to do, and the quieter ones beside it. */
export function BigButton({
  label,
  onPress,
  symbol,
  tone = 'primary',
  busy = false,
  disabled = false,
  grow = false,
  shortcut,
  small = false,
  huge = false,
}: Props) {
  const look = TONES[tone]
  const forPupil = useContext(ForPupil)
  return (
    <Press
      does={label}
      onPress={onPress}
      disabled={disabled || busy}
      style={{
        flexGrow: grow ? 1 : 0,
        flexShrink: 1,
        minHeight: huge ? 88 : small && !forPupil ? targets.adult : targets.pupil,
        borderRadius: corners.button,
        backgroundColor: look.back,
        borderWidth: 2,
        borderColor: look.edge,
        paddingHorizontal: small ? 14 : 20,
        paddingVertical: space.close,
        flexDirection: 'row',
        alignItems: 'center',
        justifyContent: 'center',
        gap: space.near,
      }}
    >
      {busy ? (
        <Spinner size={20} colour={look.text} />
      ) : symbol ? (
        <View style={{ flexShrink: 0 }}>
          <DrawnSymbol name={symbol} size={huge ? 40 : small ? 20 : 24} colour={look.text} />
        </View>
      ) : null}
      <Text
        variant={huge ? 'headlineSmall' : small ? 'labelMedium' : 'labelLarge'}
        style={{ color: look.text, flexShrink: 1, textAlign: 'center' }}
      >
        {label}
      </Text>
      {shortcut ? <Key name={shortcut} colour={look.text} /> : null}
    </Press>
  )
}

/** A key on the keyboard, named beside what it does. */
export function Key({ name, colour }: { name: string; colour: string }) {
  return (
    <View
      aria-hidden
      style={{
        borderWidth: 1,
        borderColor: colour,
        borderRadius: 5,
        paddingHorizontal: 7,
        minWidth: 22,
        alignItems: 'center',
      }}
    >
      <Text variant="bodySmall" style={{ color: colour }}>
        {name}
      </Text>
    </View>
  )
}
