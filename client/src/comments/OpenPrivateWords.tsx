import { MAX_HIDDEN_WHY_LENGTH } from '@nibquill/core'
import { useState } from 'react'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Box, Hint } from '../kit/form'
import { Bar, Stack } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { useOpenPrivateWords } from './commentsQueries'
import { Saying } from './Saying'
import { t } from './words'

/** For whoever leads the school, where a pupil's safety asks for it. Each look is noted. */
export function OpenPrivateWords({ pupilId, name }: { pupilId: string; name: string }) {
  const open = useOpenPrivateWords()
  const [reason, setReason] = useState('')
  return (
    <Box title={t('openTitle')}>
      <Text variant="bodyMedium">{t('openHelp', { name })}</Text>
      <Field
        label={t('openReason')}
        value={reason}
        onChangeText={setReason}
        maxLength={MAX_HIDDEN_WHY_LENGTH}
        lines={2}
      />
      {open.isError ? <ProblemNotice error={open.error} /> : null}
      <Bar>
        <BigButton
          small
          tone="again"
          symbol="lock"
          label={t('open')}
          disabled={reason.trim() === ''}
          busy={open.isPending}
          onPress={() => open.mutate({ pupilId, reason: reason.trim() })}
        />
      </Bar>
      {open.data?.length === 0 ? <Hint>{t('openNothing')}</Hint> : null}
      <Stack role="list" gap="apart">
        {(open.data ?? []).map((one) => (
          <Stack key={one.id} gap="hair">
            <Hint>{`${one.title} · ${one.teacherName}`}</Hint>
            <Saying {...one} />
          </Stack>
        ))}
      </Stack>
    </Box>
  )
}
