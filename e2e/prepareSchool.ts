import type { SchoolClass } from '@nibquill/contract'
import { DEMO_PASSWORD, DEMO_STAFF } from '@nibquill/demo'
import { request } from '@playwright/test'
import { mkdirSync } from 'node:fs'
import path from 'node:path'
import { startApart } from './apart.ts'

/** Every class types: the tests of the youngest switch their class over themselves. */
async function typeEverywhere(at: string): Promise<void> {
  const teacher = await request.newContext({ baseURL: at, extraHTTPHeaders: { Origin: at } })
  const signIn = { email: DEMO_STAFF.plover, password: DEMO_PASSWORD }
  await teacher.post('/api/accounts/sign-in/password', { data: signIn })
  const classes = (await (await teacher.get('/api/school/classes')).json()) as SchoolClass[]
  for (const { id, young, mine, version } of classes)
    if (young && mine)
      await teacher.patch(`/api/school/classes/${id}`, {
        data: { young: false, seenVersion: version },
      })
  await teacher.dispose()
}

/** Where the prepared school lies in a scratch folder. */
export const preparedIn = (scratch: string): string => path.join(scratch, 'prepared')

/** Loads the small demo once; every worker's school is a copy of what this leaves behind. */
export async function prepareSchool(scratch: string): Promise<void> {
  const folder = preparedIn(scratch)
  mkdirSync(folder)
  const server = await startApart(['--small-demo'], '0', folder)
  await typeEverywhere(server.at)
  await server.stop()
}
