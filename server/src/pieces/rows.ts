import type { PartFileRole, PartKind, PieceState, PieceStep } from '@nibquill/core'
import type { PartContent } from './partKinds.ts'
import { id, integer, json, maybe, moment, refer, row, text } from '../platform/columns.ts'

/**
 * A piece as it is being worked on. `version` counts changes; `goes` how often it was handed in.
 * The `approved…` columns say which version parents, folders and the portfolio show, whatever goes
 * on in a later go.
 */
export type PieceRow = {
  id: string
  pupilId: string
  classId: string
  taskId: string | null
  classPieceId: string | null
  folderId: string | null
  termId: string | null
  title: string
  reflection: string
  step: PieceStep
  state: PieceState
  version: number
  goes: number
  createdAt: Date
  changedAt: Date
  submittedAt: Date | null
  /** When a teacher last asked for it. */
  nudgedAt: Date | null
  approvedVersionId: string | null
  approvedFolderId: string | null
  approvedAt: Date | null
  binnedAt: Date | null
}
export const PieceRow = row<PieceRow>(
  'piece',
  {
    id,
    pupilId: refer('person'),
    classId: refer('class'),
    taskId: maybe(refer('task')),
    classPieceId: maybe(refer('class_piece')),
    folderId: maybe(refer('folder')),
    termId: maybe(refer('term')),
    title: text,
    reflection: text,
    step: text,
    state: text,
    version: integer,
    goes: integer,
    createdAt: moment,
    changedAt: moment,
    submittedAt: maybe(moment),
    nudgedAt: maybe(moment),
    approvedVersionId: maybe(refer('piece_version')),
    approvedFolderId: maybe(refer('folder')),
    approvedAt: maybe(moment),
    binnedAt: maybe(moment),
  },
  {
    indices: [
      // The tray: what waits for the teachers of a class, first come first.
      {
        columns: ['classId', 'submittedAt', 'id'],
        where: "((state = 'submitted'::text) AND (binned_at IS NULL))",
      },
      { columns: ['pupilId', 'changedAt'] },
      { columns: ['approvedFolderId', 'approvedAt', 'id'] },
      { columns: ['taskId'] },
      { columns: ['classPieceId'] },
      { columns: ['classId', 'state'] },
      { columns: ['folderId'] },
      { columns: ['termId'] },
      { columns: ['approvedVersionId'] },
    ],
  },
)

/** A piece the teacher started for everyone: each pupil has their own until it is closed. */
export type ClassPieceRow = {
  id: string
  classId: string
  folderId: string
  title: string
  instructions: string
  createdBy: string
  createdAt: Date
  closedAt: Date | null
}
export const ClassPieceRow = row<ClassPieceRow>(
  'class_piece',
  {
    id,
    classId: refer('class'),
    folderId: refer('folder'),
    title: text,
    instructions: text,
    createdBy: refer('person'),
    createdAt: moment,
    closedAt: maybe(moment),
  },
  { indices: [{ columns: ['classId'] }] },
)

/**
 * Everyone who makes it now; the first is also `piece.pupilId`. Who made what was handed in,
 * `VersionMakerRow` says.
 */
export type PieceMakerRow = { pieceId: string; personId: string }
export const PieceMakerRow = row<PieceMakerRow>(
  'piece_maker',
  {
    pieceId: refer('piece', { key: true, cascade: true }),
    personId: refer('person', { key: true }),
  },
  { indices: [{ columns: ['personId'] }] },
)

export type PartRow = {
  id: string
  pieceId: string
  kind: PartKind
  name: string
  position: number
  /** What its kind keeps beside its files. */
  content: PartContent
  removedAt: Date | null
}
export const PartRow = row<PartRow>(
  'part',
  {
    id,
    pieceId: refer('piece', { cascade: true }),
    kind: text,
    name: text,
    position: integer,
    content: json,
    removedAt: maybe(moment),
  },
  { indices: [{ columns: ['pieceId', 'position'] }] },
)

/**
 * The files a part hangs on while it is worked on, by their role in it. What a drawing says changes
 * with each line; what was handed in, `VersionFileRow` says.
 */
export type PartFileRow = { partId: string; role: PartFileRole; mediaId: string }
export const PartFileRow = row<PartFileRow>(
  'part_file',
  {
    partId: refer('part', { key: true, cascade: true }),
    role: { ...text, primary: true },
    mediaId: refer('media', { key: true }),
  },
  { indices: [{ columns: ['mediaId'] }] },
)

/** What was handed in at one moment; never changed afterwards, but for being withdrawn. */
export type PieceVersionRow = {
  id: string
  pieceId: string
  number: number
  title: string
  reflection: string
  step: PieceStep
  folderId: string
  submittedBy: string
  submittedAt: Date
  withdrawnAt: Date | null
}
export const PieceVersionRow = row<PieceVersionRow>(
  'piece_version',
  {
    id,
    pieceId: refer('piece', { cascade: true }),
    number: integer,
    title: text,
    reflection: text,
    step: text,
    folderId: refer('folder'),
    submittedBy: refer('person'),
    submittedAt: moment,
    withdrawnAt: maybe(moment),
  },
  { uniques: [{ columns: ['pieceId', 'number'] }] },
)

/**
 * Who had made a version when it was handed in: whose it is, whose parents see it, whose consent
 * counts.
 */
export type VersionMakerRow = { versionId: string; personId: string }
export const VersionMakerRow = row<VersionMakerRow>(
  'version_maker',
  {
    versionId: refer('piece_version', { key: true, cascade: true }),
    personId: refer('person', { key: true }),
  },
  { indices: [{ columns: ['personId'] }] },
)

/** `name` and `content`: as they were when it was handed in. */
export type VersionPartRow = {
  versionId: string
  partId: string
  position: number
  name: string
  content: PartContent
}
export const VersionPartRow = row<VersionPartRow>(
  'version_part',
  {
    versionId: refer('piece_version', { key: true, cascade: true }),
    partId: refer('part', { key: true, cascade: true }),
    position: integer,
    name: text,
    content: json,
  },
  { indices: [{ columns: ['partId'] }] },
)

/** The files a part hung on when it was handed in. */
export type VersionFileRow = {
  versionId: string
  partId: string
  role: PartFileRole
  mediaId: string
}
export const VersionFileRow = row<VersionFileRow>(
  'version_file',
  {
    versionId: refer('piece_version', { key: true, cascade: true }),
    partId: refer('part', { key: true, cascade: true }),
    role: { ...text, primary: true },
    mediaId: refer('media', { key: true }),
  },
  { indices: [{ columns: ['partId'] }, { columns: ['mediaId'] }] },
)
