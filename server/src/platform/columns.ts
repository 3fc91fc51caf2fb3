import {
  EntitySchema,
  type EntitySchemaColumnOptions,
  type EntitySchemaOptions,
  type ObjectLiteral,
} from 'typeorm'

/**
 * The column types of every table, each named once. Times are milliseconds, since JavaScript's
 * dates hold no finer.
 */
export const id: EntitySchemaColumnOptions = { type: 'uuid', primary: true }
export const text: EntitySchemaColumnOptions = { type: 'text' }
export const integer: EntitySchemaColumnOptions = { type: 'integer' }
export const flag: EntitySchemaColumnOptions = { type: 'boolean' }
export const day: EntitySchemaColumnOptions = { type: 'date' }
export const moment: EntitySchemaColumnOptions = { type: 'timestamptz', precision: 3 }
export const json: EntitySchemaColumnOptions = { type: 'jsonb' }
export const bytes: EntitySchemaColumnOptions = { type: 'bytea' }
export const maybe = (column: EntitySchemaColumnOptions): EntitySchemaColumnOptions => ({
  ...column,
  nullable: true,
})
/**
 * A reference to another table's `id`. A row that is referred to cannot go away unless `cascade`
 * says so.
 */
export const refer = (
  target: string,
  options: { key?: boolean; cascade?: boolean } = {},
): EntitySchemaColumnOptions => ({
  type: 'uuid',
  primary: options.key ?? false,
  foreignKey: { target, ...(options.cascade ? { onDelete: 'CASCADE' } : {}) },
})

export function row<T extends ObjectLiteral>(
  name: string,
  columns: { [P in keyof T]: EntitySchemaColumnOptions },
  rest: Pick<EntitySchemaOptions<T>, 'indices' | 'uniques'> = {},
): EntitySchema<T> {
  return new EntitySchema<T>({ name, tableName: name, columns, ...rest })
}
