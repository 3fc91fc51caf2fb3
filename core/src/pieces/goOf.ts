type HandedIn = { number: number; withdrawnAt: string | null }

/**
 * Which go a version was, from 1: what was taken out of the tray again before anybody looked at it was
 * none.
 * @param versions - All of the piece, in any order.
 * @param version - One that was not taken out.
 */
export const goOf = (versions: readonly HandedIn[], version: HandedIn): number =>
  versions.filter(({ number, withdrawnAt }) => withdrawnAt === null && number <= version.number)
    .length
