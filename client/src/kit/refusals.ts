import type { Problem } from '@nibquill/contract'
import { DOMAIN_ERRORS, FAULTS, readFault, type DomainErrorCode } from '@nibquill/core'
import { wordsOf } from '../words'
import { t } from './words'

const refusals = wordsOf(DOMAIN_ERRORS)
const faults = wordsOf(FAULTS)

/** For example `piece/stale`. */
export const codeIn = ({ type }: Problem): string => type.replace('/problems/', '')

/** A refusal in the language of this page; one from a newer school than this page in its own words. */
export function refusalIn(problem: Problem): string {
  const code = codeIn(problem)
  return Object.hasOwn(DOMAIN_ERRORS, code) ? refusals(code as DomainErrorCode) : problem.title
}

/** What is wrong with the thing beside which it stands; nothing is undefined. */
export function sentence(fault: string | undefined): string | undefined {
  if (!fault) return undefined
  const { code, limit } = readFault(fault)
  return t('it', { fault: faults(code, { limit }) })
}
