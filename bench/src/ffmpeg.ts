import { execFile } from 'node:child_process'
import { promisify } from 'node:util'

const run = promisify(execFile)

/** On one processor, writing over what is there. */
export const ffmpeg = (...words: string[]) =>
  run('ffmpeg', ['-nostdin', '-v', 'error', '-threads', '1', '-y', ...words])
