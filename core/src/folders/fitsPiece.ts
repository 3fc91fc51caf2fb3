type Folder = {
  wholeSchool: boolean
  classIds: readonly string[]
  /** A pupil's own folder; it counts once a teacher has agreed. */
  owner: { id: string; agreed: boolean } | null
}

/**
 * Whether a teacher may file a piece into a folder: one of its class or of the whole school, and a
 * pupil's own only for that pupil.
 */
export const fitsPiece = (
  { wholeSchool, classIds, owner }: Folder,
  piece: { classId: string; pupil: { id: string } },
): boolean =>
  (wholeSchool || classIds.includes(piece.classId)) &&
  (owner === null || (owner.agreed && owner.id === piece.pupil.id))
