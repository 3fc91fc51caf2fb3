/** What the server says about tasks. */
export const strings = {
  copyOf: (title: string) => `${title} (copy)`.slice(0, 120),
  clocksChange: (time: string) => `The clocks change that night, so it will be due at ${time}.`,
  past: 'That is in the past.',
  closed: (name: string) => `The school is closed then: ${name}.`,
  noLessons: 'There are no lessons that day.',
}
