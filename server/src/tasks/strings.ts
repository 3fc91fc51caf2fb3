/** What the server says about tasks. */
export const strings = {
  copyOf: (title: string) => `${title} (copy)`.slice(0, 120),
}
