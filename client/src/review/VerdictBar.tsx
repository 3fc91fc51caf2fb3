import type { Piece } from '@nibquill/contract'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { codeOf } from '../kit/problems'
import { BigButton } from '../kit/BigButton'
import { useWidth } from '../kit/layout'
import { Notice } from '../kit/Notice'
import { RoundButton } from '../kit/RoundButton'
import { colours } from '../kit/theme'
import { strings } from './strings'
import type { Verdict } from './useVerdict'

type BarProps = {
  piece: Piece
  verdict: Verdict
  folderName: string
  onSendBack: () => void
  onOtherFolder: () => void
}

/** The two decisions, where the thumb and the keyboard find them. */
export function VerdictBar({ piece, verdict, folderName, onSendBack, onOtherFolder }: BarProps) {
  const { wide } = useWidth()
  const { error, busy, send } = verdict
  return (
    <View
      style={{
        backgroundColor: colours.sheet,
        borderTopWidth: 1,
        borderTopColor: colours.rule,
        padding: 12,
        gap: 8,
      }}
    >
      {error ? (
        <Notice tone="again" symbol="alert">
          {codeOf(error) === 'piece/stale' ? strings.movedMeanwhile : error.message}
        </Notice>
      ) : null}
      {piece.state === 'submitted' ? (
        <View style={{ flexDirection: 'row', gap: 10 }}>
          <BigButton
            label={strings.sendBack}
            symbol={wide ? 'again' : undefined}
            tone="again"
            shortcut={wide ? 'S' : undefined}
            onPress={onSendBack}
            disabled={busy}
          />
          <BigButton
            label={strings.approveInto(folderName)}
            symbol={wide ? 'in-folder' : undefined}
            tone="good"
            shortcut={wide ? 'A' : undefined}
            onPress={() => send('approve')}
            busy={busy}
            grow
          />
          <RoundButton
            label={strings.otherFolder}
            symbol="folder"
            onPress={onOtherFolder}
            colour={colours.verdigris}
            back={colours.verdigrisTint}
          />
        </View>
      ) : (
        <Text variant="bodyMedium" style={{ textAlign: 'center', padding: 10 }}>
          {strings.notWaiting[piece.state]}
        </Text>
      )}
    </View>
  )
}
