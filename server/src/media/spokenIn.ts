/** SQL: what a teacher said with a decision; null where nothing was. */
export const spokenIn = (decision: string): string =>
  `(select json_build_object('mediaId', v.id, 'state', v.state) from media v where v.id = ${decision}.voice_media_id)`
