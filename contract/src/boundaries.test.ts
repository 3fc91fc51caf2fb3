import {
  MAX_COMMENT_LENGTH,
  MAX_HELD_WORDS,
  MAX_HIDDEN_WHY_LENGTH,
  MAX_MESSAGE_LENGTH,
  MAX_SECOND_LOOK_LENGTH,
  MAX_SENTENCE_LENGTH,
  MAX_SENTENCES,
  MAX_PART_NAME_LENGTH,
  MAX_PARTS,
  MAX_REFLECTION_LENGTH,
  MAX_TITLE_LENGTH,
} from '@nibquill/core'
import * as v from 'valibot'
import * as contract from './index.ts'

const ID = '01890000-0000-7000-8000-000000000001'
const ids = (count: number) => Array<string>(count).fill(ID)
const long = (length: number) => 'x'.repeat(length)
const TIDYING = {
  corners: null,
  quarters: 0,
  degrees: 0,
  trim: { left: 0, top: 0, right: 1, bottom: 1 },
  brighten: null,
}
const TASK = {
  classId: ID,
  folderId: ID,
  unitId: null,
  strandId: null,
  title: 'Sums',
  instructions: '',
  media: [],
  steps: ['finished'],
  asks: [],
  opens: null,
  due: null,
  folderChangeable: true,
  asksThoughts: false,
  pupilIds: null,
}
const FOLDER = {
  name: 'Kites',
  symbol: 'wind',
  colour: 'sea',
  strandId: null,
  classIds: [ID],
  wholeSchool: false,
  parentsSee: true,
  pupilsFile: true,
}
const FIRST = {
  schoolName: 'S',
  timeZone: 'Europe/London',
  firstName: 'A',
  lastName: '',
  email: 'a@saltmarsh.example',
  password: long(10),
}

/**
 * For each request a body that is taken, changes that are still taken, and changes that are not:
 * the last value on each side of a boundary.
 */
const REQUESTS: Record<
  string,
  {
    body: Record<string, unknown>
    takes?: Record<string, unknown>[]
    refuses: Record<string, unknown>[]
  }
> = {
  CardSignIn: {
    body: { code: 'ACDE' },
    takes: [{ code: '' }, { code: long(64) }],
    refuses: [{ code: long(65) }, { code: 1 }, { more: 1 }],
  },
  PasswordSignIn: {
    body: { email: 'a@saltmarsh.example', password: 'x' },
    takes: [{ password: long(200) }, { oneTimeCode: long(40) }],
    refuses: [
      { password: '' },
      { password: long(201) },
      { email: 'nobody' },
      { oneTimeCode: '' },
      { oneTimeCode: long(41) },
    ],
  },
  InvitationSignIn: {
    body: { token: long(10) },
    takes: [{ token: long(100) }],
    refuses: [{ token: long(9) }, { token: long(101) }],
  },
  PegSignIn: {
    body: { pupilId: ID, secret: null },
    takes: [{ secret: ['cat', 'boat', 'apple'] }, { secret: [] }],
    refuses: [{ secret: ['cat', 'cat', 'cat', 'cat'] }, { secret: ['nobody'] }, { pupilId: 'x' }],
  },
  MailCodeSignIn: {
    body: { email: 'a@saltmarsh.example', code: '1234 5678' },
    takes: [{ code: long(20) }],
    refuses: [{ code: ' ' }, { code: long(21) }],
  },
  MailMe: {
    body: { email: ' A@SALTMARSH.example ' },
    refuses: [{ email: '' }, { email: `${long(250)}@x.example` }],
  },
  ChoosePassword: {
    body: { password: long(10) },
    takes: [{ password: long(200) }],
    refuses: [{ password: long(9) }, { password: long(201) }],
  },
  ChangePassword: {
    body: { password: 'x', newPassword: long(10) },
    refuses: [{ newPassword: long(9) }, { password: '' }],
  },
  FirstRun: {
    body: FIRST,
    takes: [{ schoolName: long(120) }, { lastName: long(60) }],
    refuses: [
      { schoolName: ' ' },
      { schoolName: long(121) },
      { firstName: '' },
      { password: long(9) },
      { leads: true },
    ],
  },
  ChangeDoor: {
    body: {},
    takes: [
      { tabletLimit: 1 },
      { tabletLimit: contract.MAX_TABLETS },
      { opensAt: '00:00', closesAt: '23:59' },
    ],
    refuses: [
      { tabletLimit: 0 },
      { tabletLimit: contract.MAX_TABLETS + 1 },
      { tabletLimit: 1.5 },
      { opensAt: '24:00' },
      { opensAt: '8:30' },
      { switch: 'ajar' },
    ],
  },
  StartPiece: {
    body: { taskId: null },
    takes: [{ taskId: ID }],
    refuses: [{ taskId: '' }, { taskId: undefined }],
  },
  ChangePiece: {
    body: { seenVersion: 1 },
    takes: [
      { title: long(MAX_TITLE_LENGTH) },
      { reflection: long(MAX_REFLECTION_LENGTH) },
      { step: 'plan' },
    ],
    refuses: [
      { seenVersion: 0 },
      { seenVersion: 1.5 },
      { title: long(MAX_TITLE_LENGTH + 1) },
      { reflection: long(MAX_REFLECTION_LENGTH + 1) },
      { step: 'begun' },
      { state: 'approved' },
    ],
  },
  AddPart: {
    body: { kind: 'photo', files: { picture: ID }, name: '' },
    takes: [
      { name: long(MAX_PART_NAME_LENGTH) },
      { instead: { partId: ID, tidying: TIDYING } },
      { instead: { partId: ID, tidying: null } },
    ],
    refuses: [
      { kind: 'film' },
      { name: long(MAX_PART_NAME_LENGTH + 1) },
      { instead: { partId: ID, tidying: { ...TIDYING, quarters: 4 } } },
      { instead: { partId: ID, tidying: { ...TIDYING, degrees: Number.NaN } } },
      {
        instead: {
          partId: ID,
          tidying: { ...TIDYING, trim: { left: 0.5, top: 0, right: 0.5, bottom: 1 } },
        },
      },
    ],
  },
  OrderParts: {
    body: { partIds: [] },
    takes: [{ partIds: ids(2 * MAX_PARTS) }],
    refuses: [{ partIds: ids(2 * MAX_PARTS + 1) }, { partIds: ['x'] }],
  },
  MakePieceTogether: {
    body: { makerIds: [] },
    takes: [{ makerIds: ids(40) }],
    refuses: [{ makerIds: ids(41) }],
  },
  StartForEveryone: {
    body: { classId: ID, folderId: ID, title: 'Walk', instructions: '' },
    takes: [{ instructions: long(2000) }],
    refuses: [{ title: '' }, { title: long(MAX_TITLE_LENGTH + 1) }, { instructions: long(2001) }],
  },
  Decide: {
    body: { move: 'approve', message: '', seenVersion: 1 },
    takes: [{ move: 'send-back', message: 'again' }, { message: long(MAX_MESSAGE_LENGTH) }],
    refuses: [
      { move: 'send-back' },
      { message: long(MAX_MESSAGE_LENGTH + 1) },
      { move: 'another-go' },
    ],
  },
  ChoosePoster: { body: { mediaId: ID }, takes: [{ mediaId: null }], refuses: [{ mediaId: '' }] },
  SeeNews: {
    body: { ids: [ID] },
    takes: [{ ids: ids(100) }],
    refuses: [{ ids: [] }, { ids: ids(101) }],
  },
  NudgeDrafts: {
    body: { pieceIds: [ID] },
    takes: [{ pieceIds: ids(100) }],
    refuses: [{ pieceIds: [] }, { pieceIds: ids(101) }],
  },
  Sentences: {
    body: { sentences: ['Read it aloud.'] },
    takes: [{ sentences: [] }, { sentences: [long(MAX_SENTENCE_LENGTH)] }],
    refuses: [{ sentences: [' '] }, { sentences: Array(MAX_SENTENCES + 1).fill('x') }],
  },
  AskSecondLook: {
    body: { reason: 'Number bonds again' },
    takes: [{ reason: long(MAX_SECOND_LOOK_LENGTH) }],
    refuses: [{ reason: ' ' }, { reason: long(MAX_SECOND_LOOK_LENGTH + 1) }],
  },
  SayComment: {
    body: { pieceId: ID, words: 'Well seen' },
    takes: [{ words: '', voiceId: ID }, { words: long(MAX_COMMENT_LENGTH) }, { answersId: ID }],
    refuses: [{ words: ' ' }, { words: long(MAX_COMMENT_LENGTH + 1) }, { pieceId: '' }],
  },
  SayPrivately: {
    body: { pieceId: ID, withId: ID, words: 'May I ask?' },
    takes: [{ words: '', voiceId: ID }],
    refuses: [{ words: '' }, { withId: undefined }, { answersId: ID }],
  },
  DecideComment: {
    body: { seenState: 'waiting' },
    takes: [{ why: long(MAX_HIDDEN_WHY_LENGTH) }],
    refuses: [{ seenState: 'gone' }, { why: long(MAX_HIDDEN_WHY_LENGTH + 1) }],
  },
  HeldWords: {
    body: { words: ['rubbish'] },
    takes: [{ words: [] }, { words: Array(MAX_HELD_WORDS).fill('x') }],
    refuses: [{ words: [''] }, { words: Array(MAX_HELD_WORDS + 1).fill('x') }],
  },
  OpenPrivateWords: {
    body: { pupilId: ID, reason: 'A worry was passed on' },
    refuses: [{ reason: ' ' }, { pupilId: undefined }],
  },
  MakeFolder: {
    body: FOLDER,
    takes: [{ classIds: [], wholeSchool: true }, { name: long(60) }],
    refuses: [
      { classIds: [] },
      { name: ' ' },
      { name: long(61) },
      { symbol: 'nothing' },
      { colour: 'red' },
    ],
  },
  ChangeFolder: {
    body: { ...FOLDER, seenVersion: 1 },
    refuses: [{ seenVersion: undefined }, { classIds: [] }],
  },
  OrderFolders: { body: { ids: [] }, takes: [{ ids: ids(500) }], refuses: [{ ids: ids(501) }] },
  ProposeFolder: {
    body: { name: 'Mine', symbol: 'wind', colour: 'sea' },
    refuses: [{ name: '' }, { parentsSee: false }],
  },
  MakeTask: {
    body: TASK,
    takes: [
      { title: long(120) },
      { instructions: long(4000) },
      { pupilIds: [ID] },
      { due: { day: '2026-12-01', time: '14:00' } },
    ],
    refuses: [
      { title: '' },
      { title: long(121) },
      { instructions: long(4001) },
      { steps: [] },
      { pupilIds: [] },
      { due: { day: '2026-13-01', time: '14:00' } },
      { due: { day: '2026-12-01', time: '25:00' } },
      { media: Array(21).fill({ mediaId: ID, role: 'voice' }) },
    ],
  },
  Nudge: {
    body: { pupilIds: [ID] },
    takes: [{ pupilIds: ids(200) }],
    refuses: [{ pupilIds: [] }, { pupilIds: ids(201) }],
  },
  PutUnit: {
    body: { classId: ID, title: 'Bridges' },
    takes: [{ title: long(120) }],
    refuses: [{ title: '' }, { title: long(121) }],
  },
  MakeNotice: {
    body: { classId: ID, audience: 'class', words: 'Boots', mediaIds: [] },
    takes: [{ words: '', mediaIds: [ID] }, { words: long(2000) }, { mediaIds: ids(6) }],
    refuses: [
      { words: '' },
      { words: long(2001) },
      { mediaIds: ids(7) },
      { audience: 'everybody' },
    ],
  },
  MakeClass: {
    body: { schoolYearId: ID, name: 'Heron', yearGroup: '' },
    takes: [{ name: long(60) }, { yearGroup: long(40) }],
    refuses: [{ name: '' }, { name: long(61) }, { yearGroup: long(41) }],
  },
  ChangePupil: {
    body: {},
    takes: [{ left: true }, { lastName: '' }],
    refuses: [{ firstName: '' }, { classId: 'x' }, { leads: true }],
  },
  AddParent: {
    body: { firstName: 'Bryn', lastName: '', email: null },
    takes: [{ firstName: long(60) }],
    refuses: [{ firstName: '' }, { firstName: long(61) }, { email: '' }],
  },
  PutConsent: { body: { granted: true }, refuses: [{ granted: null }, { granted: 'yes' }] },
  LettersOrder: {
    body: {},
    takes: [{ classId: ID }, { pupilId: ID }],
    refuses: [{ classId: '' }, { everybody: true }],
  },
  MakeBook: {
    body: { pupilId: ID, termId: ID, madeFor: 'home' },
    takes: [{ madeFor: 'school' }],
    refuses: [{ madeFor: 'everybody' }, { madeFor: undefined }],
  },
  PutPick: {
    body: { reason: '' },
    takes: [{ place: 0 }],
    refuses: [{ place: -1 }, { place: 0.5 }, { reason: null }],
  },
}

const schemaOf = (name: string) => (contract as unknown as Record<string, v.GenericSchema>)[name]!
const taken = (name: string, body: unknown) => v.safeParse(schemaOf(name), body).success

describe.each(Object.entries(REQUESTS))('%s', (name, { body, takes = [], refuses }) => {
  test('takes what it is for, up to its limits', () => {
    for (const change of [{}, ...takes])
      expect([change, taken(name, { ...body, ...change })]).toEqual([change, true])
  })

  test('refuses what lies beyond them, in a sentence', () => {
    for (const change of refuses) {
      const { issues } = v.safeParse(schemaOf(name), { ...body, ...change })
      expect([change, issues?.length ?? 0]).toEqual([change, expect.any(Number)])
      expect(issues?.[0]?.message ?? '').toMatch(/\w+/)
    }
  })

  test('is nothing else than an object', () => {
    for (const other of [null, undefined, 'x', 7, true]) expect(taken(name, other)).toBe(false)
  })
})

test('an answer to a parent’s teacher holds no address but the one that is told once', () => {
  expect(Object.keys(contract.Invitation.entries)).not.toContain('address')
  expect(Object.keys(contract.Guardian.entries)).not.toContain('otherChildren')
  expect(Object.keys(contract.Mail.entries)).not.toContain('body')
})
