import {
  ACTIONS,
  FACTS,
  may,
  RELATIONS,
  type Action,
  type Relation,
  type Role,
  type Viewer,
} from './may.ts'

const viewer = (role: Role): Viewer =>
  role === 'visitor' || role === 'link-holder' ? { role } : { role, personId: 'somebody' }
const verdict = (
  role: Role,
  action: Action,
  relation: Relation,
  facts: readonly (typeof FACTS)[number][] = FACTS,
) => may(viewer(role), action, { relations: [relation], facts })

const LEADS = ['teacher school-lead', 'office school-lead'] as const
// The school's rules, written again by hand: for each action, who may, standing in which relation.
const EXPECTED: Record<Action, readonly `${Role} ${Relation}`[]> = {
  'school.change': LEADS,
  'staff.change': LEADS,
  'roll-over.do': LEADS,
  'post-box.read': LEADS,
  'class.enrol': ['teacher class-teacher', ...LEADS],
  'class.door': ['teacher class-teacher', ...LEADS],
  'pupil.change': ['teacher class-teacher', ...LEADS],
  'folder.make': ['teacher class-teacher', ...LEADS],
  'folder.change': ['teacher class-teacher', ...LEADS],
  'folder.propose': ['pupil classmate'],
  'task.make': ['teacher class-teacher'],
  'task.change': ['teacher class-teacher'],
  'task.tick': ['pupil classmate'],
  'notice.make': ['teacher class-teacher'],
  'notice.read': ['pupil classmate', 'teacher class-teacher', 'parent guardian'],
  'notice.change': ['teacher class-teacher'],
  'piece.start-for-everyone': ['teacher class-teacher'],
  'parent.read': ['teacher class-teacher', ...LEADS],
  'consent.change': ['teacher class-teacher', ...LEADS],
  'class.read': ['teacher class-teacher', ...LEADS],
  'class.change': ['teacher class-teacher', ...LEADS],
  'pupil.read': ['pupil maker', 'teacher class-teacher', ...LEADS, 'parent guardian'],
  'folder.read': ['pupil classmate', 'teacher class-teacher', ...LEADS],
  'folder.file-into': ['pupil classmate', 'teacher class-teacher'],
  'task.read': ['pupil classmate', 'teacher class-teacher', ...LEADS],
  'piece.make': ['pupil maker'],
  'piece.read': ['pupil maker', 'teacher class-teacher'],
  'piece.read-approved': [
    'pupil maker',
    'pupil approved-maker',
    'teacher class-teacher',
    'parent guardian',
    'link-holder holder',
  ],
  'piece.keep': ['pupil approved-maker'],
  'piece.change': ['pupil maker'],
  'piece.hand-in': ['pupil maker'],
  'piece.withdraw': ['pupil maker'],
  'piece.bin': ['pupil maker', 'teacher class-teacher'],
  'piece.judge': ['teacher class-teacher'],
  'comment.say': ['pupil maker', 'teacher class-teacher', 'parent guardian'],
  'comment.read': [
    'pupil maker',
    'pupil approved-maker',
    'teacher class-teacher',
    'parent guardian',
  ],
  'comment.decide': ['teacher class-teacher'],
  'private-word.say': ['pupil maker', 'teacher class-teacher'],
  'private-words.open': LEADS,
  'held-words.change': LEADS,
  'portfolio.read': ['pupil maker', 'teacher class-teacher', 'parent guardian'],
  'portfolio.pick': ['pupil maker', 'pupil approved-maker', 'teacher class-teacher'],
  'book.make': ['teacher class-teacher'],
  'book.read': ['teacher class-teacher'],
  'book.read-page': ['teacher class-teacher'],
  'book.take-home': ['parent guardian'],
  'invitation.make': ['teacher class-teacher', ...LEADS],
  'invitation.withdraw': ['teacher class-teacher', ...LEADS],
  'link.withdraw': ['teacher class-teacher', ...LEADS],
  'news.read': ['pupil maker'],
}
const ROLES: readonly Role[] = ['visitor', 'link-holder', 'pupil', 'teacher', 'parent', 'office']

test.each(ACTIONS.flatMap((action) => ROLES.map((role) => ({ action, role }))))(
  '$role: $action only in the relations the school allows',
  ({ action, role }) => {
    const allowed = RELATIONS.filter((relation) => verdict(role, action, relation) === 'yes')
    expect(allowed).toEqual(
      RELATIONS.filter((relation) => EXPECTED[action].includes(`${role} ${relation}`)),
    )
  },
)

test.each([
  { role: 'parent', relation: 'guardian', missing: 'approved' },
  { role: 'parent', relation: 'guardian', missing: 'sharing-consent' },
  { role: 'parent', relation: 'guardian', missing: 'parents-see' },
  { role: 'parent', relation: 'guardian', missing: 'not-binned' },
  { role: 'link-holder', relation: 'holder', missing: 'link-live' },
  { role: 'link-holder', relation: 'holder', missing: 'approved' },
  { role: 'link-holder', relation: 'holder', missing: 'sharing-consent' },
  { role: 'link-holder', relation: 'holder', missing: 'not-binned' },
  { role: 'pupil', relation: 'maker', missing: 'not-binned' },
  { role: 'teacher', relation: 'class-teacher', missing: 'not-binned' },
] as const)('$role does not see a piece without $missing', ({ role, relation, missing }) => {
  expect(verdict(role, 'piece.read-approved', relation)).toBe('yes')
  expect(
    verdict(
      role,
      'piece.read-approved',
      relation,
      FACTS.filter((fact) => fact !== missing),
    ),
  ).toBe('hidden')
})

test('a pupil files only where pupils may file', () => {
  expect(verdict('pupil', 'folder.file-into', 'classmate', ['pupils-file'])).toBe('yes')
  expect(verdict('pupil', 'folder.file-into', 'classmate', [])).toBe('hidden')
})

test('a signed-out visitor is asked to sign in, whatever it is', () => {
  for (const action of ACTIONS) expect(verdict('visitor', action, 'none')).toBe('sign-in')
})
