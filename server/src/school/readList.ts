import { DomainError } from '@nibquill/core'
import { classesNamed, readClassList, type ReadList } from '@nibquill/core/school/classList'
import { decodeText, type Encoding } from '@nibquill/core/school/csv'
import {
  isOneRoster,
  readOneRoster,
  type ClassKind,
  type OneRosterFiles,
} from '@nibquill/core/school/oneRoster'
import { unzipSync } from 'fflate'

const MAX_UNZIPPED_BYTES = 60_000_000
const ONE_ROSTER_FILES = [
  'manifest.csv',
  'users.csv',
  'roles.csv',
  'classes.csv',
  'courses.csv',
  'enrollments.csv',
  'orgs.csv',
  'academicSessions.csv',
]

export type Named = { externalId: string | null; name: string; yearGroup: string }

type Read = {
  list: ReadList
  /** Classes the list names. */
  named: Named[]
  encoding: Encoding
  /** What is to be chosen from before anybody is placed. */
  kinds: ClassKind[]
}

/**
 * A list as it came: OneRoster as a zip or a single `users.csv`, else rows of names.
 * @param kind - Which kind of class of a register is a class here, where that has been chosen.
 * @throws DomainError `school/list-unreadable`
 */
export function readList(bytes: Uint8Array, kind: string | null): Read {
  if (bytes[0] === 0x50 && bytes[1] === 0x4b) {
    const files = unzipRoster(bytes)
    if (!isOneRoster(files)) throw new DomainError('school/list-unreadable')
    const roster = readOneRoster(files, kind)
    return { list: roster, named: roster.classes, encoding: 'utf-8', kinds: roster.kinds }
  }
  const { text, encoding } = lettersOf(bytes)
  if (isOneRoster({ 'users.csv': text.slice(0, 2000) })) {
    const roster = readOneRoster({ 'users.csv': text })
    return { list: roster, named: roster.classes, encoding, kinds: [] }
  }
  const list = readClassList(text)
  return {
    list,
    named: classesNamed(list).map((one) => ({ ...one, externalId: null })),
    encoding,
    kinds: [],
  }
}

function lettersOf(bytes: Uint8Array): { text: string; encoding: Encoding } {
  const read = decodeText(bytes)
  if (!read) throw new DomainError('school/list-unreadable')
  return read
}

/** @throws DomainError `school/list-unreadable` for a broken zip */
function unzipRoster(bytes: Uint8Array): OneRosterFiles {
  try {
    let total = 0
    const unzipped = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        const wanted = ONE_ROSTER_FILES.includes(name.split('/').at(-1) ?? '')
        if (wanted) total += originalSize
        if (total > MAX_UNZIPPED_BYTES) throw new DomainError('request/too-large')
        return wanted
      },
    })
    return Object.fromEntries(
      Object.entries(unzipped).map(([name, content]) => [
        name.split('/').at(-1)!,
        lettersOf(content).text,
      ]),
    )
  } catch (error) {
    if (error instanceof DomainError) throw error
    throw new DomainError('school/list-unreadable')
  }
}
