import type { PupilDetail } from '@nibquill/contract'
import { useState } from 'react'
import { Text } from 'react-native-paper'
import { CardsButton } from '../door'
import { accountsStrings as accountWords } from '../accounts'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Box, faultsOf, Hint, Row, Select, sentence } from '../kit/form'
import { ProblemNotice } from '../kit/Notice'
import { toast } from '../kit/Toast'
import { schoolStrings as strings, useChangePupil, useClasses, useNewCard } from '../school'

/** A pupil's name, class and card; leaving the school and coming back. */
export function PupilEditBox({ pupil }: { pupil: PupilDetail }) {
  const change = useChangePupil(pupil.id)
  const classes = useClasses()
  const [names, setNames] = useState({ firstName: pupil.firstName, lastName: pupil.lastName })
  const [asking, setAsking] = useState(false)
  const renamed = names.firstName !== pupil.firstName || names.lastName !== pupil.lastName
  const faults = faultsOf(change.error)
  const own = (classes.data ?? []).map(({ id, name }) => ({ value: id, label: name }))
  const done = { onSuccess: () => toast(strings.kept) }
  return (
    <>
      <CardBox pupil={pupil} />
      <Box title={strings.edit}>
        <Field
          label={strings.firstName}
          value={names.firstName}
          onChangeText={(firstName) => setNames({ ...names, firstName })}
          error={sentence(faults.firstName?.[0])}
        />
        <Field
          label={strings.lastName}
          value={names.lastName}
          onChangeText={(lastName) => setNames({ ...names, lastName })}
          error={sentence(faults.lastName?.[0])}
        />
        {own.some(({ value }) => value === pupil.classId) && own.length > 1 ? (
          <Select
            label={strings.moveTo}
            value={pupil.classId}
            options={own}
            onChange={(classId) => change.mutate({ classId }, done)}
          />
        ) : null}
        {change.isError && Object.keys(faults).length === 0 ? (
          <ProblemNotice error={change.error} />
        ) : null}
        <Row>
          {renamed ? (
            <BigButton
              small
              label={strings.keep}
              symbol="check"
              busy={change.isPending}
              onPress={() => change.mutate(names, done)}
            />
          ) : null}
          {pupil.leftAt ? (
            <BigButton
              small
              tone="quiet"
              label={strings.comeBack}
              onPress={() => change.mutate({ left: false }, done)}
            />
          ) : (
            <BigButton
              small
              tone="again"
              symbol="out"
              label={strings.leave}
              onPress={() => setAsking(true)}
            />
          )}
        </Row>
        <Ask
          visible={asking}
          title={strings.leaveAsk(pupil.firstName)}
          yes={strings.leave}
          tone="again"
          onNo={() => setAsking(false)}
          onYes={() => {
            setAsking(false)
            change.mutate({ left: true }, done)
          }}
        >
          {strings.leaveHelp}
        </Ask>
      </Box>
    </>
  )
}

function CardBox({ pupil }: { pupil: PupilDetail }) {
  const card = useNewCard(pupil.id)
  const [asking, setAsking] = useState(false)
  const code = card.data?.code
  return (
    <Box title={strings.cards}>
      <Hint>{strings.cardHelp}</Hint>
      {code ? (
        <>
          <Hint>{strings.theCode(pupil.firstName)}</Hint>
          <Text variant="headlineSmall" selectable>
            {code.match(/.{4}/g)?.join(' ')}
          </Text>
        </>
      ) : null}
      {card.isError ? <ProblemNotice error={card.error} /> : null}
      <Row>
        <BigButton
          small
          tone="quiet"
          symbol="card"
          label={strings.newCard}
          busy={card.isPending}
          onPress={() => setAsking(true)}
        />
        <CardsButton label={accountWords.card} order={{ pupilId: pupil.id }} />
      </Row>
      <Ask
        visible={asking}
        title={strings.newCardAsk(pupil.firstName)}
        yes={strings.newCard}
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          card.mutate(undefined)
        }}
      >
        {strings.cardHelp}
      </Ask>
    </Box>
  )
}
