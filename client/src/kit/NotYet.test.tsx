import { QueryClient, QueryClientProvider, useQuery } from '@tanstack/react-query'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { PaperProvider } from 'react-native-paper'
import { isHere, NotYet } from './NotYet'
import { ProblemError, UnreachableError } from './problems'
import { theme } from './theme'

const refusal = (status: number) =>
  new ProblemError({ type: '/problems/request/not-found', title: 'Nothing here.', status })

/** A question whose answers follow each other, and a form on what came. */
function open(...answers: (string | Error)[]) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  function Form() {
    const asked = useQuery({
      queryKey: ['year'],
      queryFn: () => {
        const answer = answers.shift()!
        return answer instanceof Error ? Promise.reject(answer) : Promise.resolve(answer)
      },
    })
    if (!isHere(asked)) return <NotYet of={asked} />
    return <Typing name={asked.data} />
  }
  function Typing({ name }: { name: string }) {
    const [words, setWords] = useState('')
    return (
      <input aria-label={name} value={words} onChange={(event) => setWords(event.target.value)} />
    )
  }
  render(
    <QueryClientProvider client={queries}>
      <PaperProvider theme={theme}>
        <Form />
      </PaperProvider>
    </QueryClientProvider>,
  )
  return { again: () => act(() => queries.invalidateQueries()) }
}

test.each([
  ['the network is away', new UnreachableError()],
  ['the school has trouble', refusal(503)],
  ['too much was asked', refusal(429)],
])('what somebody is typing stays when %s', async (_why, error) => {
  const { again } = open('Year 2026/27', error)
  const field = await screen.findByLabelText('Year 2026/27')
  fireEvent.change(field, { target: { value: 'half a sentence' } })
  await again()
  expect(screen.getByLabelText('Year 2026/27')).toHaveProperty('value', 'half a sentence')
})

test.each([403, 404, 410])('what the school refuses now (%i) is shown no more', async (status) => {
  const { again } = open('Year 2026/27', refusal(status))
  await screen.findByLabelText('Year 2026/27')
  await again()
  expect(await screen.findByText('There is nothing here for you to see.')).toBeTruthy()
  expect(screen.queryByLabelText('Year 2026/27')).toBeNull()
})

test('what never came is said, and asked for again', async () => {
  open(new UnreachableError(), 'Year 2026/27')
  fireEvent.click(await screen.findByRole('button', { name: 'Try again' }))
  expect(await screen.findByLabelText('Year 2026/27')).toBeTruthy()
})
