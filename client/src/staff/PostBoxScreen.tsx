import type { PostBox } from '@nibquill/contract'
import { useState } from 'react'
import { Text } from 'react-native-paper'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { useWhen } from '../kit/useWhen'
import { Box, Hint } from '../kit/form'
import { Head } from '../kit/Head'
import { Bar, Page } from '../kit/layout'
import { Empty, Notice, ProblemNotice } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { useOpenMail, usePostBox, schoolWords } from '../school'
import { t } from './words'

type Mail = PostBox['mails'][number]

/** The stand-in for e-mail: what was sent, or would have been. */
export function PostBoxScreen() {
  const box = usePostBox()
  if (!isHere(box)) return <NotYet of={box} />
  return (
    <Page>
      <Head title={schoolWords('postBox')} back="/year" />
      <Hint>{t('postHelp')}</Hint>
      {box.data.server ? null : (
        <Notice tone="attention" symbol="mail">
          {t('noServer')}
        </Notice>
      )}
      {box.data.mails.map((mail) => (
        <Letter key={mail.id} mail={mail} openable={!box.data.server} />
      ))}
      {box.data.mails.length === 0 ? <Empty symbol="mail" title={t('noMail')} /> : null}
    </Page>
  )
}

/** Opening is an act of its own: it is asked about first, and those it concerns hear of it. */
function Letter({ mail, openable }: { mail: Mail; openable: boolean }) {
  const { whenWasIt } = useWhen()
  const open = useOpenMail()
  const [asking, setAsking] = useState(false)
  return (
    <Box>
      <Text role="heading" aria-level={2} variant="titleMedium">
        {mail.subject}
      </Text>
      <Hint>{[mail.to, whenWasIt(mail.createdAt), t(`mailStates.${mail.state}`)].join(' · ')}</Hint>
      {open.data ? (
        <>
          <Text variant="bodyMedium" selectable>
            {open.data.body}
          </Text>
          {open.data.blanked ? <Hint>{t('blanked')}</Hint> : null}
        </>
      ) : openable ? (
        <Bar wrap>
          <BigButton
            small
            tone="quiet"
            symbol="mail"
            label={t('openLetter')}
            busy={open.isPending}
            onPress={() => setAsking(true)}
          />
        </Bar>
      ) : null}
      {open.isError ? <ProblemNotice error={open.error} /> : null}
      <Ask
        visible={asking}
        title={t('openAsk', { to: mail.to })}
        yes={t('openLetter')}
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          open.mutate(mail.id)
        }}
      >
        {t('openHelp')}
      </Ask>
    </Box>
  )
}
