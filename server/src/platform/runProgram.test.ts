import { ProgramFailed, runProgram } from './runProgram.ts'

const ROOMY = { seconds: 30, memoryMb: 4096 }
const whyOf = (running: Promise<unknown>) =>
  running.then(
    () => 'ended well',
    (error: unknown) => (error instanceof ProgramFailed ? error.why : 'another error'),
  )

test('what a program prints is returned, and it knows nothing of ours', async () => {
  process.env.NIBQUILL_SECRET = 'ours'
  expect(await runProgram('sh', ['-c', 'echo "[$NIBQUILL_SECRET]"'], ROOMY)).toBe('[]\n')
  delete process.env.NIBQUILL_SECRET
})
test.each<[string, string[], { seconds: number; memoryMb: number }, string]>([
  ['waits for ever', ['sleep', '60'], { ...ROOMY, seconds: 1 }, 'time'],
  ['works for ever', ['sh', '-c', 'while :; do :; done'], { ...ROOMY, seconds: 1 }, 'time'],
  [
    'takes all there is of memory',
    ['perl', '-e', '$x = "a" x (600 << 20)'],
    { ...ROOMY, memoryMb: 200 },
    'input',
  ],
  ['talks for ever', ['yes'], ROOMY, 'input'],
  ['ends badly', ['sh', '-c', 'exit 3'], ROOMY, 'input'],
])('one that %s is ended, and it is said why', async (_, [program, ...words], bounds, why) => {
  expect(await whyOf(runProgram(program!, words, bounds))).toBe(why)
})
test('an ending that was to be expected is none', async () => {
  expect(await runProgram('sh', ['-c', 'echo done; exit 3'], ROOMY, [0, 3])).toBe('done\n')
})
