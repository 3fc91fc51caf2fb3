import fc from 'fast-check'
import { fold, pendingMove, type Foldable, type Seen } from './fold.ts'
import {
  addIntent,
  GATHER_MS,
  overtaken,
  readyIntents,
  TAKE_BACK_MS,
  type Intent,
  type IntentBody,
  type Standing,
} from './intents.ts'

const NONE = new Set<string>()
const NOBODY = new Map<string, Standing>()
let count = 0
const intent = (body: IntentBody, at = 0, pieceId = 'piece'): Intent => ({
  ...body,
  id: `i${count++}`,
  pieceId,
  at,
})
const queueOf = (...bodies: IntentBody[]): readonly Intent[] =>
  bodies.reduce<readonly Intent[]>((queue, body) => addIntent(queue, intent(body), NONE), [])
const kinds = (queue: readonly Intent[]) => queue.map(({ kind }) => kind)
const words = (title: string) =>
  ({ title, reflection: '', step: 'finished', folderId: null }) as const
const wrote = (title: string): IntentBody => ({
  kind: 'words',
  words: words(title),
  base: words(''),
})
const photo = (n: number): IntentBody[] => [
  { kind: 'file', mediaId: `m${n}`, name: 'a.jpg', sizeBytes: 1 },
  {
    kind: 'add-part',
    partId: `p${n}`,
    part: { kind: 'photo', name: 'a', mediaId: `m${n}`, instead: null },
  },
]
const out = (n: number, restore = false): IntentBody => ({
  kind: 'remove',
  partId: `p${n}`,
  restore,
})

const drew = (n: number, id: string): IntentBody => ({
  ...{ kind: 'ink', partId: `p${n}` },
  changes: [{ kind: 'take', sheetId: 's', ids: [id] }],
})

describe('what is said under a piece', () => {
  const said = (n: number, mediaId: string | null = null): IntentBody => ({
    ...{
      kind: 'comment',
      commentId: `c${n}`,
      words: `${n}`,
      mediaId,
      withId: null,
      thoughts: false,
    },
  })
  test('is never merged: each thing said is said', () => {
    expect(kinds(queueOf(said(1), said(2), said(1)))).toEqual(['comment', 'comment', 'comment'])
  })
  test('goes after its own recording, whatever became of another', () => {
    const file: IntentBody = { kind: 'file', mediaId: 'm1', name: 'a.webm', sizeBytes: 1 }
    const queue = queueOf(file, said(1, 'm1'), said(2))
    expect(readyIntents(queue, NOBODY, 0).map(({ id }) => id)).toEqual([queue[0]!.id, queue[2]!.id])
    expect(readyIntents(queue.slice(1), NOBODY, 0)).toHaveLength(2)
  })
  test('goes after the piece has been begun, and is said before it is handed in', () => {
    const queue = queueOf({ kind: 'start', taskId: null }, said(1), { kind: 'hand-in' })
    expect(kinds(readyIntents(queue, NOBODY, 0))).toEqual(['start'])
    expect(kinds(readyIntents(queue.slice(1), NOBODY, 0))).toEqual(['comment'])
  })
})

describe('what is drawn', () => {
  test('is gathered for a moment and then sets out together, after the drawing itself', () => {
    const begun: IntentBody = {
      ...{ kind: 'add-part', partId: 'p1' },
      part: { kind: 'drawing', name: '', mediaId: 'm1' },
    }
    const queue = queueOf(begun, drew(1, 'a'), drew(2, 'b'), drew(1, 'c'))
    expect(kinds(queue)).toEqual(['add-part', 'ink', 'ink'])
    expect(queue[1]).toMatchObject({ changes: [{ ids: ['a'] }, { ids: ['c'] }] })
    expect(kinds(readyIntents(queue, NOBODY, GATHER_MS - 1))).toEqual(['add-part'])
    // The other drawing is at school; this one waits for its beginning.
    expect(readyIntents(queue, NOBODY, GATHER_MS)).toEqual([queue[0], queue[2]])
  })
  test('on a piece handed in without a pause arrives before it does', () => {
    const queue = queueOf(drew(1, 'a'), { kind: 'hand-in' })
    expect(readyIntents(queue, NOBODY, GATHER_MS - 1)).toEqual([])
    expect(kinds(readyIntents(queue, NOBODY, GATHER_MS))).toEqual(['ink'])
  })
  test('without a network for long lies in many small batches', () => {
    const queue = queueOf(...Array.from({ length: 100 }, (_, i) => drew(1, `t${i}`)))
    expect(queue.map((one) => (one.kind === 'ink' ? one.changes.length : 0))).toEqual([60, 40])
  })
})

describe('the picture that stands for a film', () => {
  const chose = (mediaId: string): IntentBody[] => [
    { kind: 'file', mediaId, name: 'moment.jpg', sizeBytes: 1 },
    { kind: 'poster', partId: 'p1', mediaId },
  ]
  const filmed: IntentBody = {
    ...{ kind: 'add-part', partId: 'p1' },
    part: { kind: 'film', name: '', mediaId: 'm1' },
  }
  test('sets out after the film and itself; chosen anew it is the later one', () => {
    const queue = queueOf(filmed, ...chose('a'), ...chose('b'))
    expect(queue.filter(({ kind }) => kind === 'poster')).toMatchObject([{ mediaId: 'b' }])
    expect(kinds(readyIntents(queue, NOBODY, 0))).toEqual(['add-part', 'file', 'file'])
    const arrived = queue.filter(({ kind }) => kind === 'poster')
    expect(readyIntents(arrived, NOBODY, 0)).toEqual(arrived)
  })
  test('goes with a film that is taken out before the school heard of it', () => {
    const queue = queueOf(filmed, ...chose('a'), out(1))
    expect(overtaken(queue, NONE, TAKE_BACK_MS).size).toBe(queue.length)
  })
})

test('what was written between putting a part back and taking it out again is not lost', () => {
  const wrote: IntentBody = { kind: 'content', partId: 'p1', text: 'w', seenText: '' }
  expect(kinds(queueOf(out(1, true), wrote, out(1), out(1, true)))).toEqual(['remove', 'content'])
})

describe('two wishes of a kind', () => {
  test('words are written over; what they began from stays', () => {
    expect(queueOf(wrote('a'), wrote('ab'))).toMatchObject([
      { words: { title: 'ab' }, base: { title: '' } },
    ])
  })
  test('what is written into a part that is not at school yet goes with it', () => {
    const writing = { kind: 'writing', name: '', text: '' } as const
    const queue = queueOf(
      { kind: 'add-part', partId: 'w', part: writing },
      { kind: 'content', partId: 'w', text: 'The wind', seenText: '' },
    )
    expect(queue).toMatchObject([{ kind: 'add-part', part: { text: 'The wind' } }])
  })
  test.each([
    ['taking out and putting back', [out(1), out(1, true)]],
    [
      'throwing away and bringing back',
      [
        { kind: 'bin', restore: false },
        { kind: 'bin', restore: true },
      ],
    ],
    ['into the tray and out of it', [{ kind: 'hand-in' }, { kind: 'withdraw' }]],
  ] as [string, IntentBody[]][])('%s cancel each other', (_what, bodies) =>
    expect(queueOf(...bodies)).toEqual([]),
  )
  test('the last order, name and makers count', () => {
    const queue = queueOf(
      { kind: 'order', partIds: ['a', 'b'] },
      { kind: 'order', partIds: ['b', 'a'] },
      { kind: 'name', partId: 'a', name: 'x' },
      { kind: 'name', partId: 'a', name: 'y' },
    )
    expect(queue).toMatchObject([{ partIds: ['b', 'a'] }, { name: 'y' }])
  })
  test('nothing is merged across handing in, nor into what is on its way', () => {
    expect(kinds(queueOf(wrote('a'), { kind: 'hand-in' }, wrote('b')))).toEqual([
      'words',
      'hand-in',
      'words',
    ])
    const first = intent(wrote('a'))
    expect(addIntent([first], intent(wrote('b')), new Set([first.id]))).toHaveLength(2)
  })
  test('starting twice is starting once, and pieces keep apart', () => {
    const start: IntentBody = { kind: 'start', taskId: null }
    const queue = addIntent(queueOf(start, start), intent(start, 0, 'other'), NONE)
    expect(queue).toHaveLength(2)
  })
})

describe('what may set out', () => {
  const ready = (queue: readonly Intent[], standings = NOBODY, now = 1e6) =>
    readyIntents(queue, standings, now).map((one) =>
      'partId' in one ? `${one.kind} ${one.partId}` : one.kind,
    )
  test('a small photo does not overtake a large one made before it; one that is refused holds up nobody', () => {
    const queue = queueOf(...photo(1), ...photo(2))
    const without = (...gone: string[]) =>
      queue.filter((one) => !(one.kind === 'file' && gone.includes(one.mediaId)))
    // Both files may be on their way; the second has arrived, and waits for the first.
    expect(kinds(readyIntents(queue, NOBODY, 0))).toEqual(['file', 'file'])
    expect(kinds(readyIntents(without('m2'), NOBODY, 0))).toEqual(['file'])
    expect(kinds(readyIntents(without('m1', 'm2'), NOBODY, 0))).toEqual(['add-part'])
    const refused = new Map<string, Standing>([[queue[0]!.id, 'refused']])
    expect(readyIntents(without('m2'), refused, 0)).toMatchObject([
      { kind: 'add-part', partId: 'p2' },
    ])
  })
  test('the piece and files at once; a part after its file, handing in after all', () => {
    const queue = queueOf({ kind: 'start', taskId: null }, ...photo(1), wrote('a'), {
      kind: 'hand-in',
    })
    expect(ready(queue)).toEqual(['start', 'file'])
    expect(ready(queue.slice(1))).toEqual(['file', 'words'])
    expect(ready(queue.filter(({ kind }) => kind === 'hand-in'))).toEqual(['hand-in'])
  })
  test('a refused photo does not keep the piece out of the tray; a question does', () => {
    const queue = queueOf(...photo(1), { kind: 'hand-in' })
    const refused = new Map<string, Standing>([[queue[0]!.id, 'refused']])
    expect(ready(queue, refused)).toEqual(['hand-in'])
    const asked = queueOf(wrote('a'), { kind: 'hand-in' })
    expect(ready(asked, new Map([[asked[0]!.id, 'asks']]))).toEqual([])
  })
  test('a photo taken out at once stays here until it can no longer be taken back, then neither goes', () => {
    const queue = [...photo(1), out(1)].map((body) => intent(body, 1000))
    expect(ready(queue, NOBODY, 1001)).toEqual([])
    expect(overtaken(queue, NONE, 1001).size).toBe(0)
    expect(overtaken(queue, NONE, 1000 + TAKE_BACK_MS).size).toBe(3)
  })
  test('a piece nobody heard of is thrown away here; one that is at school is thrown away there', () => {
    const bin: IntentBody = { kind: 'bin', restore: false }
    const queue = [{ kind: 'start', taskId: null } as IntentBody, ...photo(1), bin].map((b) =>
      intent(b),
    )
    expect(overtaken(queue, NONE, TAKE_BACK_MS).size).toBe(4)
    expect(overtaken(queue.slice(1), NONE, TAKE_BACK_MS).size).toBe(2)
    expect(pendingMove(queue)).toBe('bin')
  })
})

/** A school as simple as can be: what is asked twice is done once. */
type Part = { id: string; name: string; text: string }
type Piece = Foldable<Part, { id: string }, { id: string }>
class School {
  started = false
  readonly files = new Set<string>()
  piece: Piece = {
    ...{ title: '', reflection: '', step: 'finished', state: 'draft', folder: null },
    ...{ parts: [], makers: [] },
  }
  readonly gone = new Map<string, Part>()
  versions: string[] = []

  do(one: Intent): void {
    if (one.kind === 'start') this.started = true
    else if (one.kind === 'file') this.files.add(one.mediaId)
    else if (!this.started) throw new Error('not begun')
    else if (one.kind === 'hand-in') {
      if (this.piece.state === 'submitted') return
      this.versions.push(JSON.stringify([this.piece.title, this.piece.parts]))
      this.piece = { ...this.piece, state: 'submitted' }
    } else if (one.kind === 'withdraw') this.piece = { ...this.piece, state: 'draft' }
    else {
      if (this.piece.state === 'submitted') throw new Error('not open')
      if (one.kind === 'add-part' && one.part.kind === 'photo' && !this.files.has(one.part.mediaId))
        throw new Error('no file')
      if (one.kind === 'add-part' && this.gone.has(one.partId)) return
      if (one.kind === 'remove' && !one.restore)
        for (const part of this.piece.parts)
          if (part.id === one.partId) this.gone.set(part.id, part)
      this.piece = fold(this.piece, [one], seenIn(this.gone))
    }
  }
}
const seenIn = (gone: ReadonlyMap<string, Part>): Seen<Part, { id: string }, { id: string }> => ({
  part: (id, part) => ({ id, name: part.name, text: part.kind === 'writing' ? part.text : '' }),
  write: (part, text) => ({ ...part, text }),
  poster: (part) => part,
  folder: (id) => ({ id }),
  maker: (id) => ({ id }),
  removed: (id) => gone.get(id),
})

type Act =
  | {
      act: 'photo' | 'writing' | 'take out' | 'put back' | 'name' | 'order' | 'words' | 'write'
      n: number
    }
  | { act: 'hand-in' | 'withdraw'; n: number }
  | { act: 'arrives' | 'answer lost' | 'fails' | 'time passes'; n: number }
const ACTS = [
  ...['photo', 'photo', 'writing', 'take out', 'put back', 'name', 'order', 'words', 'write'],
  ...['hand-in', 'hand-in', 'withdraw', 'withdraw', 'answer lost', 'fails', 'time passes'],
  // Often enough that pieces are handed in and taken out again for real.
  ...Array.from({ length: 12 }, () => 'arrives'),
] as Act['act'][]

test('whatever the network does, the screen shows what the pupil did last, and so does the school in the end', () => {
  fc.assert(
    fc.property(
      fc.array(fc.record({ act: fc.constantFrom(...ACTS), n: fc.nat(9) }), {
        minLength: 20,
        maxLength: 100,
      }),
      (acts) => {
        const tablet = new Tablet()
        for (const act of acts) tablet.go(act as Act)
        tablet.finish()
      },
    ),
    { numRuns: 300 },
  )
})

/** A pupil, the outbox and the school between them. */
class Tablet {
  readonly #school = new School()
  #queue: readonly Intent[] = []
  #wanted: Piece = new School().piece
  #now = 0
  #parts = 0
  readonly #removed = new Map<string, Part>()
  readonly #removedAt = new Map<string, number>()
  readonly #tried = new Set<string>()

  constructor() {
    this.#want({ kind: 'start', taskId: null })
  }

  #want(body: IntentBody): void {
    const one = intent(body, this.#now)
    if (one.kind === 'remove' && !one.restore)
      for (const part of this.#wanted.parts)
        if (part.id === one.partId) {
          this.#removed.set(part.id, part)
          this.#removedAt.set(part.id, this.#now)
        }
    this.#wanted = fold(this.#wanted, [one], seenIn(this.#removed))
    if (one.kind === 'hand-in') this.#wanted = { ...this.#wanted, state: 'submitted' }
    this.#queue = addIntent(this.#queue, one, this.#tried)
  }

  go({ act, n }: Act): void {
    const open = this.#wanted.state === 'draft'
    const { parts } = this.#wanted
    const part = parts[n % Math.max(1, parts.length)]
    if (act === 'withdraw' && !open) this.#want({ kind: 'withdraw' })
    if (act === 'hand-in' && open && parts.length > 0) this.#want({ kind: 'hand-in' })
    if (open) this.#change(act, n, part)
    if (act === 'time passes') this.#now += TAKE_BACK_MS
    if (act === 'arrives' || act === 'answer lost' || act === 'fails') this.#send(act, n)
    this.#look()
  }

  #change(act: Act['act'], n: number, part: Part | undefined): void {
    if (act === 'photo') for (const body of photo(++this.#parts)) this.#want(body)
    if (act === 'writing')
      this.#want({
        kind: 'add-part',
        partId: `p${++this.#parts}`,
        part: { kind: 'writing', name: '', text: '' },
      })
    if (act === 'words')
      this.#want({ kind: 'words', words: words(`t${n}`), base: words(this.#wanted.title) })
    if (act === 'order')
      this.#want({ kind: 'order', partIds: this.#wanted.parts.map(({ id }) => id).reverse() })
    if (act === 'put back') {
      // As long as the screen offers it.
      const back = [...this.#removedAt].find(
        ([id, at]) =>
          this.#now - at < TAKE_BACK_MS && !this.#wanted.parts.some((shown) => shown.id === id),
      )
      if (back) this.#want({ kind: 'remove', partId: back[0], restore: true })
    }
    if (!part) return
    if (act === 'take out') this.#want({ kind: 'remove', partId: part.id, restore: false })
    if (act === 'name') this.#want({ kind: 'name', partId: part.id, name: `n${n}` })
    if (act === 'write')
      this.#want({ kind: 'content', partId: part.id, text: `w${n}`, seenText: part.text })
  }

  #send(act: 'arrives' | 'answer lost' | 'fails', n: number): void {
    this.#tidy()
    const ready = readyIntents(this.#queue, NOBODY, this.#now)
    const one = ready[n % Math.max(1, ready.length)]
    if (!one) return
    this.#tried.add(one.id)
    if (act === 'fails') return
    this.#school.do(one)
    if (act === 'arrives') this.#queue = this.#queue.filter(({ id }) => id !== one.id)
  }

  #tidy(): void {
    const gone = overtaken(this.#queue, this.#tried, this.#now)
    this.#queue = this.#queue.filter(({ id }) => !gone.has(id))
  }

  /** Where a part that was put back stands among the others is for the school to say. */
  #look(): void {
    const shown = fold(this.#school.piece, this.#queue, seenIn(this.#removed))
    expect(sorted(shown)).toEqual(sorted(this.#wanted))
  }

  finish(): void {
    this.#now += TAKE_BACK_MS
    for (let round = 0; this.#queue.length > 0 && round < 500; round++) {
      this.#send('arrives', 0)
      this.#look()
    }
    expect(this.#queue).toEqual([])
    expect(sorted(this.#school.piece)).toEqual(sorted(this.#wanted))
    expect(this.#school.piece.state).toBe(this.#wanted.state)
  }
}
const sorted = ({ parts, title }: Piece) => ({
  title,
  parts: [...parts].sort((a, b) => a.id.localeCompare(b.id)),
})
