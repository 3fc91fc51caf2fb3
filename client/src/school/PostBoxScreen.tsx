import { Text } from 'react-native-paper'
import { whenWasIt } from '../kit/dates'
import { Box, Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Empty, Loading, Notice, ProblemNotice } from '../kit/Notice'
import { usePostBox } from './schoolQueries'
import { strings } from './strings'

/** The stand-in for e-mail: what was sent, or would have been. */
export function PostBoxScreen() {
  const box = usePostBox()
  if (box.isPending) return <Loading />
  if (box.isError) return <ProblemNotice error={box.error} onRetry={() => void box.refetch()} />
  return (
    <Page>
      <Head title={strings.postBox} back="/year" />
      <Hint>{strings.postHelp}</Hint>
      {box.data.server ? null : (
        <Notice tone="attention" symbol="mail">
          {strings.noServer}
        </Notice>
      )}
      {box.data.mails.map((mail) => (
        <Box key={mail.id}>
          <Text role="heading" aria-level={2} variant="titleMedium">
            {mail.subject}
          </Text>
          <Hint>{[mail.to, whenWasIt(mail.createdAt), strings.mailStates[mail.state]].join(' · ')}</Hint>
          {mail.body ? (
            <Text variant="bodyMedium" selectable>
              {mail.body}
            </Text>
          ) : null}
        </Box>
      ))}
      {box.data.mails.length === 0 ? <Empty symbol="mail" title={strings.noMail} /> : null}
    </Page>
  )
}
