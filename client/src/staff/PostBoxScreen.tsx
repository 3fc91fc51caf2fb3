import type { PostBox } from '@nibquill/contract'
import { useState } from 'react'
import { Text } from 'react-native-paper'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { whenWasIt } from '../kit/dates'
import { Box, Hint, Row } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { Empty, Notice, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { schoolStrings as strings, useOpenMail, usePostBox } from '../school'

type Mail = PostBox['mails'][number]

/** The stand-in for e-mail: what was sent, or would have been. */
export function PostBoxScreen() {
  const box = usePostBox()
  if (!isHere(box)) return <NotYet of={box} />
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
        <Letter key={mail.id} mail={mail} openable={!box.data.server} />
      ))}
      {box.data.mails.length === 0 ? <Empty symbol="mail" title={strings.noMail} /> : null}
    </Page>
  )
}

/** Opening is an act of its own: it is asked about first, and those it concerns hear of it. */
function Letter({ mail, openable }: { mail: Mail; openable: boolean }) {
  const open = useOpenMail()
  const [asking, setAsking] = useState(false)
  return (
    <Box>
      <Text role="heading" aria-level={2} variant="titleMedium">
        {mail.subject}
      </Text>
      <Hint>
        {[mail.to, whenWasIt(mail.createdAt), strings.mailStates[mail.state]].join(' · ')}
      </Hint>
      {open.data ? (
        <>
          <Text variant="bodyMedium" selectable>
            {open.data.body}
          </Text>
          {open.data.blanked ? <Hint>{strings.blanked}</Hint> : null}
        </>
      ) : openable ? (
        <Row>
          <BigButton
            small
            tone="quiet"
            symbol="mail"
            label={strings.openLetter}
            busy={open.isPending}
            onPress={() => setAsking(true)}
          />
        </Row>
      ) : null}
      {open.isError ? <ProblemNotice error={open.error} /> : null}
      <Ask
        visible={asking}
        title={strings.openAsk(mail.to)}
        yes={strings.openLetter}
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          open.mutate(mail.id)
        }}
      >
        {strings.openHelp}
      </Ask>
    </Box>
  )
}
