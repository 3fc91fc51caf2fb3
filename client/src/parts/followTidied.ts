/**
 * Which part took whose place on this page, so that an address that names the former shows the
 * latter.
 */
const followers = new Map<string, string>()

export const noteTidied = (former: string, latter: string): void =>
  void followers.set(former, latter)

/** The part itself while it is there, else the one that took its place. */
export function followTidied(partId: string, isThere: (partId: string) => boolean): string {
  const follower = followers.get(partId)
  return isThere(partId) || follower === undefined ? partId : followTidied(follower, isThere)
}
