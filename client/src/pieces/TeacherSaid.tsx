import type { Version } from '@nibquill/contract'
import { Text } from 'react-native-paper'
import { Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Notice } from '../kit/Notice'
import { Player } from '../media/Player'
import { t } from './words'

/** What a teacher said to a piece, written, spoken or both; nothing where nothing was said. */
export function TeacherSaid({ decision }: { decision: Version['decision'] | undefined }) {
  if (!decision || (decision.message === '' && !decision.voice)) return null
  const { move, message, voice, decidedBy } = decision
  return (
    <Notice
      tone={move === 'approve' ? 'good' : 'again'}
      symbol="message"
      action={message ? <Listen text={message} /> : <></>}
    >
      <Stack gap="tight">
        <Text variant="labelMedium">{t('teacherSays', { name: decidedBy })}</Text>
        {message ? <Text variant="bodyLarge">{message}</Text> : null}
        {voice ? <Player file={voice} /> : null}
      </Stack>
    </Notice>
  )
}
