import { valibotResolver } from '@hookform/resolvers/valibot'
import { useRef, useState } from 'react'
import { useForm, type DefaultValues, type FieldPath, type FieldValues } from 'react-hook-form'
import type * as v from 'valibot'
import { ProblemError } from './problems'
import { sentence } from './refusals'

/**
 * A form in a shape of the contract: looked over here as the school looks it over, and what the
 * school finds wrong stands beside the same lines. Whatever happens, what was filled in stays.
 * @returns `send`, to be called when it shall go: gives what was filled in to `sending`, if it is in
 *   order. `refused`: what went wrong and stands beside no line.
 */
export function useFormOf<Filled extends FieldValues, Sent>(
  schema: v.GenericSchema<Filled, Sent>,
  start: Filled,
  sending: (sent: Sent) => Promise<unknown>,
) {
  const form = useForm<Filled, unknown, Sent>({
    resolver: valibotResolver(schema) as never,
    defaultValues: start as DefaultValues<Filled>,
  })
  const [refused, setRefused] = useState<Error | null>(null)
  const errorAt = (path: string) => form.getFieldState(path as FieldPath<Filled>).error
  const whenInOrder = async (sent: Sent) => {
    setRefused(null)
    await sending(sent).catch((error: unknown) => {
      const faults = Object.entries(faultsOf(error))
      for (const [path, [fault]] of faults)
        form.setError(path as FieldPath<Filled>, { type: 'school', message: fault! })
      const besideLines = faults.length > 0 && faults.every(([path]) => errorAt(path)?.ref)
      if (besideLines) showFirstFault()
      else setRefused(error instanceof Error ? error : new Error(String(error)))
    })
  }
  const whenNot = (errors: object) => {
    // What is wrong with something that has no line of its own is said above the form.
    const fields = Object.fromEntries(
      Object.entries(errors)
        .filter(([, error]) => isFault(error) && !error.ref)
        .map(([path, error]) => [path, [(error as Fault).message]]),
    )
    const apart = Object.keys(fields).length > 0
    setRefused(apart ? new ProblemError({ type: INVALID, title: '', status: 400, fields }) : null)
    if (!apart) showFirstFault()
  }
  // Twice tapped is once meant.
  const going = useRef(false)
  const send = () => {
    if (going.current) return
    going.current = true
    void form
      .handleSubmit(whenInOrder, whenNot)()
      .finally(() => (going.current = false))
  }
  const set = (part: Partial<Filled>) => {
    for (const [name, value] of Object.entries(part))
      form.setValue(name as FieldPath<Filled>, value as never, { shouldDirty: true })
  }
  /** What is wrong with a line, in a sentence. */
  const faultAt = (path: FieldPath<Filled>) =>
    sentence(form.getFieldState(path, form.formState).error?.message)
  return { ...form, set, faultAt, send, refused }
}

const INVALID = '/problems/request/invalid'
type Fault = { message: string; ref?: unknown }
/** Not a group of faults, as the lines of a list have them. */
const isFault = (error: unknown): error is Fault =>
  typeof (error as Partial<Fault> | undefined)?.message === 'string'

/** It may stand far above the button that was tapped. */
const showFirstFault = () =>
  requestAnimationFrame(() =>
    document.querySelector('[role=alert]')?.scrollIntoView?.({ block: 'center' }),
  )

/** What the school found wrong, by path of the line. */
const faultsOf = (error: unknown): Record<string, string[]> =>
  error instanceof ProblemError ? (error.problem.fields ?? {}) : {}
