import { ChangePupil, type PupilDetail } from '@nibquill/contract'
import { useState } from 'react'
import { Text } from 'react-native-paper'
import { CardsButton } from '../door'

import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Box, Hint, Select } from '../kit/form'
import { FormLine } from '../kit/formLines'
import { ProblemNotice } from '../kit/Notice'
import { toast } from '../kit/Toast'
import { useFormOf } from '../kit/useFormOf'
import { useChangePupil, useClasses, useNewCard, schoolWords } from '../school'
import { t } from './words'
import { Bar } from '../kit/layout'

/** A pupil's name, class and card; leaving the school and coming back. */
export function PupilEditBox({ pupil }: { pupil: PupilDetail }) {
  const change = useChangePupil(pupil.id)
  const rename = useChangePupil(pupil.id)
  const classes = useClasses()
  const [asking, setAsking] = useState(false)
  const own = (classes.data ?? []).map(({ id, name }) => ({ value: id, label: name }))
  const done = { onSuccess: () => toast(schoolWords('kept')) }
  const names: ChangePupil = { firstName: pupil.firstName, lastName: pupil.lastName }
  const { control, formState, reset, send, refused } = useFormOf(
    ChangePupil,
    names,
    async (now) => {
      await rename.mutateAsync(now)
      reset(now)
      toast(schoolWords('kept'))
    },
  )
  return (
    <>
      <CardBox pupil={pupil} />
      <Box title={t('edit')}>
        <FormLine control={control} name="firstName" label={t('firstName')} />
        <FormLine control={control} name="lastName" label={schoolWords('lastName')} />
        {own.some(({ value }) => value === pupil.classId) && own.length > 1 ? (
          <Select
            label={t('moveTo')}
            value={pupil.classId}
            options={own}
            onChange={(classId) => change.mutate({ classId }, done)}
          />
        ) : null}
        {refused ? <ProblemNotice error={refused} /> : null}
        {change.isError ? <ProblemNotice error={change.error} /> : null}
        <Bar wrap>
          {formState.isDirty ? (
            <BigButton
              small
              label={schoolWords('keep')}
              symbol="check"
              busy={rename.isPending}
              onPress={send}
            />
          ) : null}
          {pupil.leftAt ? (
            <BigButton
              small
              tone="quiet"
              label={schoolWords('comeBack')}
              onPress={() => change.mutate({ left: false }, done)}
            />
          ) : (
            <BigButton
              small
              tone="again"
              symbol="out"
              label={t('leave')}
              onPress={() => setAsking(true)}
            />
          )}
        </Bar>
        <Ask
          visible={asking}
          title={t('leaveAsk', { name: pupil.firstName })}
          yes={t('leave')}
          tone="again"
          onNo={() => setAsking(false)}
          onYes={() => {
            setAsking(false)
            change.mutate({ left: true }, done)
          }}
        >
          {t('leaveHelp')}
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
    <Box title={t('cards')}>
      <Hint>{t('cardHelp')}</Hint>
      {code ? (
        <>
          <Hint>{t('theCode', { name: pupil.firstName })}</Hint>
          <Text variant="headlineSmall" selectable>
            {code.match(/.{4}/g)?.join(' ')}
          </Text>
        </>
      ) : null}
      {card.isError ? <ProblemNotice error={card.error} /> : null}
      <Bar wrap>
        <BigButton
          small
          tone="quiet"
          symbol="card"
          label={t('newCard')}
          busy={card.isPending}
          onPress={() => setAsking(true)}
        />
        <CardsButton label={t('card')} order={{ pupilId: pupil.id }} />
      </Bar>
      <Ask
        visible={asking}
        title={t('newCardAsk', { name: pupil.firstName })}
        yes={t('newCard')}
        onNo={() => setAsking(false)}
        onYes={() => {
          setAsking(false)
          card.mutate(undefined)
        }}
      >
        {t('cardHelp')}
      </Ask>
    </Box>
  )
}
