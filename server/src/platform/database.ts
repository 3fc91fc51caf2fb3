import { DataSource, DefaultNamingStrategy, type NamingStrategyInterface, type Table } from 'typeorm'
import { ROWS } from './rows.ts'
import { CardSheets1700000000004 } from './migrations/cardSheets.ts'
import { FirstRoad1700000000000 } from './migrations/firstRoad.ts'
import { Arriving1700000000002 } from './migrations/arriving.ts'
import { Making1700000000003 } from './migrations/making.ts'
import { SettingUp1700000000001 } from './migrations/settingUp.ts'

const snake = (name: string) => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`)
const tableOf = (table: Table | string | { name: string }) => (typeof table === 'string' ? table : table.name).split('.').at(-1)!

/** Names as a person would write them, so that hand-written migrations and entities agree. */
class PlainNames extends DefaultNamingStrategy implements NamingStrategyInterface {
  override columnName = (property: string, custom: string | undefined) => custom ?? snake(property)
  override primaryKeyName = (table: Table | string) => `${tableOf(table)}_pkey`
  override foreignKeyName = (table: Table | string, columns: string[]) => `${tableOf(table)}_${columns.join('_')}_fkey`
  override uniqueConstraintName = (table: Table | string, columns: string[]) => `${tableOf(table)}_${columns.join('_')}_key`
  override indexName = (table: Table | string | { name: string }, columns: string[]) =>
    `${tableOf(table)}_${columns.join('_')}_idx`
}

export function openDatabase(url: string, onPoolError: (error: Error) => void): Promise<DataSource> {
  return new DataSource({
    type: 'postgres',
    url,
    entities: ROWS,
    migrations: [
      FirstRoad1700000000000,
      SettingUp1700000000001,
      Arriving1700000000002,
      Making1700000000003,
      CardSheets1700000000004,
    ],
    migrationsTableName: 'migration',
    namingStrategy: new PlainNames(),
    poolErrorHandler: onPoolError,
    extra: { max: 12, connectionTimeoutMillis: 5000 },
  }).initialize()
}
