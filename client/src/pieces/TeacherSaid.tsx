import type { Version } from '@nibquill/contract'
import { Text } from 'react-native-paper'
import { Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Notice } from '../kit/Notice'
import { Player } from '../media/Player'
import { t } from './words'

/**
 * What a teacher said to a piece, written, spoken or both, and where they filed it instead; nothing
 * where there is nothing to say.
 */
export function TeacherSaid({ decision }: { decision: Version['decision'] | undefined }) {
  if (!decision) return null
  const { move, message, voice, decidedBy, filed } = decision
  const where = filed
    ? [t('filed', { from: filed.from, into: filed.into }), filed.because].filter(Boolean).join(' ')
    : ''
  if (message === '' && !voice && !where) return null
  return (
    <Notice
      tone={move === 'approve' ? 'good' : 'again'}
      symbol="message"
      action={
        message || where ? <Listen text={[message, where].filter(Boolean).join(' ')} /> : <></>
      }
    >
      <Stack gap="tight">
        <Text variant="labelMedium">{t('teacherSays', { name: decidedBy })}</Text>
        {message ? <Text variant="bodyLarge">{message}</Text> : null}
        {voice ? <Player file={voice} /> : null}
        {where ? <Text variant="bodyLarge">{where}</Text> : null}
      </Stack>
    </Notice>
  )
}
