/**
 * A title that will still mean something in a year: the task's name and the week of the term, else
 * the folder's.
 * @param from.week - Week of the term, from 1, where a term runs.
 * @param from.earlier - How many pieces this pupil already made for the task.
 * @returns For example `Plan your bridge, week 2` or `Plan your bridge, week 2, try 3`.
 */
export function suggestTitle(from: {
  task?: string
  folder?: string
  week?: number
  earlier?: number
}): string {
  const subject = from.task ?? from.folder ?? 'My work'
  const week = from.week === undefined ? '' : `, week ${from.week}`
  const attempt = from.earlier ? `, try ${from.earlier + 1}` : ''
  return `${subject}${week}${attempt}`
}
