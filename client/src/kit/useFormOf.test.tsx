import { fireEvent, render, screen, waitFor } from '@testing-library/react'
import { fault } from '@nibquill/core'
import { PaperProvider } from 'react-native-paper'
import * as v from 'valibot'
import { FormLine } from './formLines'
import { ProblemNotice } from './Notice'
import { ProblemError } from './problems'
import { theme } from './theme'
import { useFormOf } from './useFormOf'

const Named = v.object({
  name: v.pipe(
    v.string(),
    v.trim(),
    v.minLength(1, fault('empty')),
    v.maxLength(5, fault('too-long', 5)),
  ),
  place: v.pipe(v.string(), v.minLength(1, fault('for-no-class'))),
})

function open(sending: (sent: { name: string }) => Promise<unknown>, place = 'Saltmarsh') {
  function Form() {
    const { control, send, refused } = useFormOf(Named, { name: '', place }, sending)
    return (
      <>
        <FormLine control={control} name="name" label="Name" />
        {refused ? <ProblemNotice error={refused} /> : null}
        <button onClick={send}>Keep</button>
      </>
    )
  }
  render(
    <PaperProvider theme={theme}>
      <Form />
    </PaperProvider>,
  )
  return {
    type: (name: string) =>
      fireEvent.change(screen.getByLabelText('Name'), { target: { value: name } }),
    keep: () => fireEvent.click(screen.getByRole('button', { name: 'Keep' })),
    typed: () => screen.getByLabelText<HTMLInputElement>('Name').value,
  }
}
const refuse = (code: string, fields?: Record<string, string[]>) => () =>
  Promise.reject(
    new ProblemError({
      type: `/problems/${code}`,
      title: 'As the API says it.',
      status: 400,
      fields,
    }),
  )

test('what is not in order stays here, each fault beside its line; what is goes as the contract has it', async () => {
  const sending = jest.fn(() => Promise.resolve())
  const { type, keep } = open(sending)
  keep()
  expect(await screen.findByText('It is empty.')).toBeTruthy()
  type('Heronry')
  keep()
  expect(await screen.findByText('It is longer than 5 characters.')).toBeTruthy()
  expect(sending).not.toHaveBeenCalled()
  type(' Wren ')
  keep()
  keep()
  await waitFor(() => expect(sending).toHaveBeenCalledWith({ name: 'Wren', place: 'Saltmarsh' }))
  expect(sending).toHaveBeenCalledTimes(1)
  expect(screen.queryByText(/^It is/)).toBeNull()
})

test('a fault of something without a line of its own is said above the form, and nothing goes', async () => {
  const sending = jest.fn(() => Promise.resolve())
  const { type, keep } = open(sending, '')
  type('Wren')
  keep()
  expect(await screen.findByText(/It is for no class\.$/)).toBeTruthy()
  expect(sending).not.toHaveBeenCalled()
})

test('what the school finds wrong with a line stands beside it, and can be sent again', async () => {
  const answers = [refuse('request/invalid', { name: ['too-long:5'] }), () => Promise.resolve()]
  const { type, keep, typed } = open(() => answers.shift()!())
  type('Wren')
  keep()
  expect(await screen.findByText('It is longer than 5 characters.')).toBeTruthy()
  expect(screen.queryByText('As the API says it.')).toBeNull()
  expect(typed()).toBe('Wren')
  keep()
  await waitFor(() => expect(answers).toHaveLength(0))
})

test.each([
  ['a refusal', refuse('folder/stale'), /^Someone else changed this folder first/],
  [
    'a fault of no line',
    refuse('request/invalid', { body: ['unusable'] }),
    /cannot be used like this/,
  ],
  ['a code this page does not know', refuse('folder/brand-new'), /^As the API says it\.$/],
  ['no network', () => Promise.reject(new Error('away')), /cannot be reached just now/],
])('%s is said in a sentence, and nothing that was typed is lost', async (_, sending, says) => {
  const { type, keep, typed } = open(sending)
  type('Wren')
  keep()
  expect(await screen.findByText(says)).toBeTruthy()
  expect(typed()).toBe('Wren')
})
