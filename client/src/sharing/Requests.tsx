import type { GuardianRequest } from '@nibquill/contract'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Box, Hint, Row } from '../kit/form'
import { ProblemNotice } from '../kit/Notice'
import { useAnswerRequest, useRequests } from './sharingQueries'
import { strings } from './strings'

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
        {strings.requestAsk(askedBy, childName, className)}
      </Text>
      <Hint>{strings.requestHelp}</Hint>
      {answer.isError ? <ProblemNotice error={answer.error} /> : null}
      <Row>
        <BigButton
          small
          symbol="check"
          label={strings.requestYes(childName)}
          busy={answer.isPending}
          onPress={() => say('accept')}
        />
        <BigButton
          small
          tone="quiet"
          symbol="close"
          label={strings.requestNo}
          busy={answer.isPending}
          onPress={() => say('decline')}
        />
      </Row>
    </Box>
  )
}
