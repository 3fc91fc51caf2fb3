import { faceOf, SCRIPTS, type Script } from '@nibquill/core/school/scripts'
import { createRequire } from 'node:module'

const require = createRequire(import.meta.url)

/** A general-purpose face for a script our own letters do not cover. */
export type Face = Script

const FACES: readonly Face[] = SCRIPTS
const KANA = FACES.find(({ name }) => name === 'japanese')!
const HAN = FACES.find(({ name }) => name === 'chinese')!

/**
 * The face a sign is set in.
 * @param text - The whole of it: beside Japanese signs Chinese ones are Japanese too.
 * @returns undefined where no face is shipped for its script
 */
export function faceFor(sign: string, text: string): Face | undefined {
  if (HAN.pattern.test(sign) && KANA.pattern.test(text)) return KANA
  return FACES.find(({ pattern }) => pattern.test(sign))
}

export function fileOf(face: Face, weight: 400 | 700): string {
  const name = faceOf(face)
  const part = face.part ?? face.name
  return require.resolve(`@fontsource/${name}/files/${name}-${part}-${weight}-normal.woff`)
}
