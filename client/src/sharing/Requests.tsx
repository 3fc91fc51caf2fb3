import type { GuardianRequest } from '@nibquill/contract'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Box, Hint } from '../kit/form'
import { ProblemNotice } from '../kit/Notice'
import { useAnswerRequest, useRequests } from './sharingQueries'
import { t } from './words'
import { Bar } from '../kit/layout'

/**
 * What a parent is asked before another child is shown to them.
 * @param onAnswer - The list of children may change from here on.
 */
export function Requests({ onAnswer }: { onAnswer?: () => void }) {
  const requests = useRequests()
  return (requests.data ?? []).map((request) => (
    <OneRequest key={request.id} request={request} onAnswer={onAnswer} />
  ))
}

function OneRequest({ request, onAnswer }: { request: GuardianRequest; onAnswer?: () => void }) {
  const { id, askedBy, childName, className } = request
  const answer = useAnswerRequest()
  const say = (word: 'accept' | 'decline') => {
    onAnswer?.()
    answer.mutate({ id, word })
  }
  return (
    <Box>
      <Text role="heading" aria-level={2} variant="titleMedium">
        {className
          ? t('requestAskOf', { by: askedBy, child: childName, className })
          : t('requestAsk', { by: askedBy, child: childName })}
      </Text>
      <Hint>{t('requestHelp')}</Hint>
      {answer.isError ? <ProblemNotice error={answer.error} /> : null}
      <Bar wrap>
        <BigButton
          small
          symbol="check"
          label={t('requestYes', { child: childName })}
          busy={answer.isPending}
          onPress={() => say('accept')}
        />
        <BigButton
          small
          tone="quiet"
          symbol="close"
          label={t('requestNo')}
          busy={answer.isPending}
          onPress={() => say('decline')}
        />
      </Bar>
    </Box>
  )
}
