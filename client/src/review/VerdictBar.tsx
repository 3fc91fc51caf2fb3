import type { Piece } from '@nibquill/contract'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Bar, Stack, useWidth } from '../kit/layout'
import { RoundButton } from '../kit/RoundButton'
import { colours, space } from '../kit/theme'

import { ToastPlace } from '../kit/Toast'
import type { Verdict } from './useVerdict'
import { t } from './words'

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
  const { send } = verdict
  return (
    <>
      <ToastPlace />
      <Stack
        gap="near"
        style={{
          backgroundColor: colours.sheet,
          borderTopWidth: 1,
          borderTopColor: colours.rule,
          padding: space.apart,
        }}
      >
        {piece.state === 'submitted' ? (
          <Bar align="stretch">
            <BigButton
              label={t('sendBack')}
              symbol={wide ? 'again' : undefined}
              tone="again"
              shortcut={wide ? 'S' : undefined}
              onPress={onSendBack}
            />
            <BigButton
              label={t('approveInto', { folder: folderName })}
              symbol={wide ? 'in-folder' : undefined}
              tone="good"
              shortcut={wide ? 'A' : undefined}
              onPress={() => send('approve')}
              grow
            />
            <RoundButton
              label={t('otherFolder')}
              symbol="folder"
              onPress={onOtherFolder}
              colour={colours.verdigris}
              back={colours.verdigrisTint}
            />
          </Bar>
        ) : (
          <Bar wrap style={{ justifyContent: 'center' }}>
            <Text variant="bodyMedium" style={{ padding: 10 }}>
              {t(`notWaiting.${piece.state}`, { folder: folderName })}
            </Text>
            {piece.state === 'approved' ? (
              <>
                <BigButton
                  small
                  label={t('askAgain')}
                  symbol="again"
                  tone="again"
                  onPress={onSendBack}
                />
                <BigButton
                  small
                  label={t('otherFolder')}
                  symbol="folder"
                  tone="quiet"
                  onPress={onOtherFolder}
                />
              </>
            ) : null}
          </Bar>
        )}
      </Stack>
    </>
  )
}
