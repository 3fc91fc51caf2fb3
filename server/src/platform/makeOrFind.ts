import type { EntityManager, EntitySchema, FindOptionsWhere, ObjectLiteral } from 'typeorm'

/**
 * Makes a thing under the id its client chose, or finds what is there: the same request sent twice,
 * or four times at once, makes one.
 * Others who ask for the same id wait until this transaction ends.
 * @param found - What is done with the one that is there: usually to refuse it to whoever may not
 *   see it.
 */
export async function makeOrFind<Row extends ObjectLiteral & { id: string }, Made, Found>(
  manager: EntityManager,
  table: EntitySchema<Row>,
  id: string,
  { make, found }: { make: () => Promise<Made>; found: (there: Row) => Promise<Found> | Found },
): Promise<Made | Found> {
  await holdName(manager, id)
  const there = await manager.findOneBy(table, { id } as FindOptionsWhere<Row>)
  return there ? found(there) : make()
}

/** Keeps everybody else who asks for the same name waiting until this transaction ends. */
export async function holdName(manager: EntityManager, name: string): Promise<void> {
  await manager.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [name])
}
