import { MAX_HELD_WORD_LENGTH, MAX_HELD_WORDS } from '@nibquill/core'
import { useState } from 'react'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Box } from '../kit/form'
import { Bar } from '../kit/layout'
import { ProblemNotice } from '../kit/Notice'
import { toast } from '../kit/Toast'
import { schoolWords } from '../school'
import { useHeldWords, usePutHeldWords } from './commentsQueries'
import { t } from './words'

/** The school's own list of words that are looked at twice. */
export function HeldWordsBox() {
  const held = useHeldWords()
  return held.data ? <ListOf key={held.data.words.join('\n')} words={held.data.words} /> : null
}

function ListOf({ words }: { words: readonly string[] }) {
  const put = usePutHeldWords()
  const [typed, setTyped] = useState(() => words.join('\n'))
  const list = typed
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')
  const changed = list.join('\n') !== words.join('\n')
  const keep = () => put.mutate({ words: list }, { onSuccess: () => toast(schoolWords('kept')) })
  return (
    <Box title={t('heldWords')}>
      <Text variant="bodyMedium">{t('heldWordsHelp')}</Text>
      <Field
        label={t('heldWordsField')}
        value={typed}
        onChangeText={setTyped}
        maxLength={MAX_HELD_WORDS * (MAX_HELD_WORD_LENGTH + 1)}
        lines={5}
      />
      {put.isError ? <ProblemNotice error={put.error} /> : null}
      {changed ? (
        <Bar>
          <BigButton small label={schoolWords('keep')} busy={put.isPending} onPress={keep} />
        </Bar>
      ) : null}
    </Box>
  )
}
