/**
 * Who may do what: one table. The server loads the facts (`Subject`), this decides; no route
 * decides for itself.
 * Lists are filtered in SQL by the same facts.
 */

/**
 * How somebody stands to Nibquill at this moment. A `link-holder` opened a page link from a printed
 * book.
 */
export type Viewer =
  | { role: 'visitor' }
  | { role: 'link-holder' }
  | { role: 'pupil' | 'teacher' | 'parent' | 'office'; personId: string }

export type Role = Viewer['role']

/**
 * How the viewer stands to the thing looked at.
 * `maker`: a pupil who makes it (or is it); `approved-maker`: made the version that was approved,
 * whoever works at it now; `class-teacher`: teaches the class it belongs to; `guardian`: of its
 * pupil;
 * `classmate`: belongs to the class it is for; `holder`: came by the link to it; `school-lead`:
 * oversees the school it belongs to; `none`.
 */
export const RELATIONS = [
  'maker',
  'approved-maker',
  'class-teacher',
  'guardian',
  'classmate',
  'holder',
  'school-lead',
  'none',
] as const
export type Relation = (typeof RELATIONS)[number]

export const ACTIONS = [
  'school.change',
  'staff.change',
  'roll-over.do',
  'post-box.read',
  'class.read',
  'class.change',
  'class.enrol',
  'class.door',
  'pupil.read',
  'pupil.change',
  'folder.read',
  'folder.file-into',
  'folder.make',
  'folder.change',
  'folder.propose',
  'task.read',
  'task.make',
  'task.change',
  'task.tick',
  'notice.make',
  'notice.read',
  'notice.change',
  'piece.start-for-everyone',
  'piece.make',
  'piece.read',
  'piece.read-approved',
  'piece.change',
  'piece.hand-in',
  'piece.withdraw',
  'piece.bin',
  'piece.judge',
  'piece.keep',
  'comment.say',
  'comment.read',
  'comment.decide',
  'private-word.say',
  'private-words.open',
  'held-words.change',
  'portfolio.read',
  'portfolio.pick',
  'book.make',
  'book.read',
  'book.read-page',
  'book.take-home',
  'parent.read',
  'consent.change',
  'invitation.make',
  'invitation.withdraw',
  'link.withdraw',
  'news.read',
] as const
export type Action = (typeof ACTIONS)[number]

/** Facts that narrow an entry: all those an entry names must hold. */
export const FACTS = [
  'approved',
  'sharing-consent',
  'parents-see',
  'link-live',
  'not-binned',
  'pupils-file',
  'proposals-open',
] as const
export type Fact = (typeof FACTS)[number]

export type Subject = { relations: readonly Relation[]; facts: readonly Fact[] }
export type Entry = { role: Role; action: Action; relation: Relation; when: readonly Fact[] }

/**
 * `approved work of a child whose sharing consent stands, in a folder parents may see`, the
 * school's rule in one place.
 */
const SHARED_WITH_PARENTS = ['approved', 'sharing-consent', 'parents-see', 'not-binned'] as const
/** What a page link opens: the same, while the link stands. */
const SHARED_BY_LINK = [...SHARED_WITH_PARENTS, 'link-live'] as const

/** Sets up and oversees, and reads no pupil's work by it. */
const LEADING = [
  'school.change',
  'held-words.change',
  'private-words.open',
  'staff.change',
  'roll-over.do',
  'post-box.read',
  'class.read',
  'class.change',
  'class.enrol',
  'class.door',
  'pupil.read',
  'pupil.change',
  'folder.read',
  'folder.make',
  'folder.change',
  'task.read',
  'parent.read',
  'consent.change',
  'invitation.make',
  'invitation.withdraw',
  'link.withdraw',
] as const

const entries = (
  role: Role,
  relation: Relation,
  actions: readonly Action[],
  when: readonly Fact[] = [],
): Entry[] => actions.map((action) => ({ role, action, relation, when }))

/** Everything that is allowed. What is not written here is refused. */
export const ACCESS_TABLE: readonly Entry[] = [
  ...entries('pupil', 'maker', [
    'pupil.read',
    'piece.make',
    'piece.withdraw',
    'piece.bin',
    'portfolio.read',
    'news.read',
  ]),
  ...entries(
    'pupil',
    'maker',
    [
      ...(['piece.read', 'piece.read-approved', 'piece.change', 'piece.hand-in'] as const),
      ...(['portfolio.pick', 'comment.say', 'comment.read', 'private-word.say'] as const),
    ],
    ['not-binned'],
  ),
  // Left out of the next go, they keep what they made.
  ...entries(
    'pupil',
    'approved-maker',
    ['piece.read-approved', 'piece.keep', 'portfolio.pick', 'comment.read'],
    ['approved', 'not-binned'],
  ),
  ...entries('pupil', 'classmate', ['folder.read', 'task.read', 'task.tick', 'notice.read']),
  ...entries('pupil', 'classmate', ['folder.propose'], ['proposals-open']),
  ...entries('pupil', 'classmate', ['folder.file-into'], ['pupils-file']),
  ...entries('teacher', 'class-teacher', [
    'class.read',
    'class.change',
    'class.enrol',
    'class.door',
    'pupil.read',
    'pupil.change',
    'folder.read',
    'folder.file-into',
    'folder.make',
    'folder.change',
    'task.read',
    'task.make',
    'task.change',
    'notice.make',
    'notice.read',
    'notice.change',
    'piece.start-for-everyone',
    'portfolio.read',
    'portfolio.pick',
    'piece.bin',
    'book.make',
    'book.read',
    'parent.read',
    'consent.change',
    'invitation.make',
    'invitation.withdraw',
    'link.withdraw',
  ]),
  ...entries(
    'teacher',
    'class-teacher',
    [
      ...(['piece.read', 'piece.read-approved', 'piece.judge', 'book.read-page'] as const),
      ...(['comment.say', 'comment.read', 'comment.decide', 'private-word.say'] as const),
    ],
    ['not-binned'],
  ),
  ...entries('office', 'school-lead', LEADING),
  // In a small school a teacher leads as well.
  ...entries('teacher', 'school-lead', LEADING),
  ...entries(
    'parent',
    'guardian',
    ['pupil.read', 'portfolio.read', 'book.take-home'],
    ['sharing-consent'],
  ),
  ...entries('parent', 'guardian', ['notice.read']),
  ...entries(
    'parent',
    'guardian',
    ['piece.read-approved', 'comment.say', 'comment.read'],
    SHARED_WITH_PARENTS,
  ),
  ...entries('link-holder', 'holder', ['piece.read-approved'], SHARED_BY_LINK),
]

/**
 * `yes`; `sign-in` when a signed-out visitor asks (401); `hidden` for everyone else, which never
 * says that it exists (404).
 */
export type Verdict = 'yes' | 'sign-in' | 'hidden'

/**
 * Decides one action of one viewer on one thing.
 * @param subject - The relations that hold between them, and the facts that hold of the thing.
 */
export function may(viewer: Viewer, action: Action, subject: Subject): Verdict {
  const allowed = ACCESS_TABLE.some(
    (entry) =>
      entry.role === viewer.role &&
      entry.action === action &&
      subject.relations.includes(entry.relation) &&
      entry.when.every((fact) => subject.facts.includes(fact)),
  )
  if (allowed) return 'yes'
  return viewer.role === 'visitor' ? 'sign-in' : 'hidden'
}
