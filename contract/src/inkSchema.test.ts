import { toJsonSchema } from '@valibot/to-json-schema'
import { readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { InkDocument } from './ink.ts'

const FILE = path.resolve(import.meta.dirname, '../../docs/ink-document.schema.json')

/**
 * What others read says what we read. Where the contract has changed, NIBQUILL_WRITE=1 with this
 * test writes it anew. That lists are equally long, and what differences add up to, is beyond a
 * schema.
 */
test('the published schema is the contract’s', () => {
  const schema = {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    ...toJsonSchema(InkDocument, { target: 'draft-2020-12', errorMode: 'ignore' }),
    title: 'Nibquill ink document, version 1',
  }
  if (process.env.NIBQUILL_WRITE) writeFileSync(FILE, `${JSON.stringify(schema, null, 2)}\n`)
  expect(JSON.parse(readFileSync(FILE, 'utf8'))).toEqual(JSON.parse(JSON.stringify(schema)))
})
