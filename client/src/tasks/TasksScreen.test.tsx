import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render, screen } from '@testing-library/react'
import { PaperProvider } from 'react-native-paper'
import { theme } from '../kit/theme'
import { TasksScreen } from './TasksScreen'

const show = (answer: () => Promise<Response>) => {
  globalThis.fetch = answer as typeof fetch
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  render(
    <QueryClientProvider client={queries}>
      <PaperProvider theme={theme}>
        <TasksScreen />
      </PaperProvider>
    </QueryClientProvider>,
  )
}
const answer = (status: number, body: unknown) => () =>
  Promise.resolve({ ok: status < 400, status, json: () => Promise.resolve(body) } as Response)
const TASK = {
  id: '01890000-0000-7000-8000-000000000001', title: 'Plan your bridge', instructions: 'Draw it.', dueAt: null, folderChangeable: true, className: 'Heron', myPieces: [],
  folder: { id: '01890000-0000-7000-8000-000000000002', name: 'Bridges', symbol: 'bridge', colour: 'ochre' },
  counts: { pupils: 24, draft: 3, submitted: 8, returned: 1, approved: 2 },
} // prettier-ignore

test('while it waits it says so', () => {
  show(() => new Promise(() => undefined))
  expect(screen.getByRole('status', { name: 'Just a moment' })).toBeTruthy()
})
test('a refusal is shown in the server’s sentence, with a way to try again', async () => {
  show(answer(503, { type: '/problems/service/unavailable', title: 'Try again in a moment.', status: 503 }))
  expect(await screen.findByText('Try again in a moment.')).toBeTruthy()
  expect(screen.getByRole('button', { name: 'Try again' })).toBeTruthy()
})
test('a proxy’s page instead of an answer is not taken for one', async () => {
  show(() => Promise.resolve({ ok: true, status: 200, json: () => Promise.reject(new Error('html')) } as Response))
  expect(await screen.findByText(/cannot be reached just now/)).toBeTruthy()
})
test('without tasks it says what will be here', async () => {
  show(answer(200, []))
  expect(await screen.findByText('No tasks yet')).toBeTruthy()
})
test('each task says how many pupils stand where', async () => {
  show(answer(200, [TASK]))
  expect(await screen.findByRole('article', { name: 'Plan your bridge' })).toBeTruthy()
  for (const words of ['2 in the folder', '8 in the tray', '1 another go', '3 on the go', '10 not begun'])
    expect(screen.getByText(words)).toBeTruthy()
})
