import type { Sql } from './sql.ts'

const MIGRATIONS: Readonly<Record<string, string>> = import.meta.glob('./migrations/*.sql', {
  query: '?raw',
  import: 'default',
  eager: true,
})

const numbered = Object.entries(MIGRATIONS)
  .map(([path, text]) => ({ version: Number(/(\d{4})-/.exec(path)?.[1]), text }))
  .sort((a, b) => a.version - b.version)
export const NEWEST_SCHEMA = numbered.at(-1)?.version ?? 0

/** The data is of a program that knows more than this one. */
export class Newer extends Error {}

/** What steps are taken on: `script` runs a text of many statements. */
export interface Migrated extends Sql {
  script(text: string): Promise<void>
}

/** Brings a database to the newest schema, each step in a transaction of its own. */
export const migrate = async (
  sql: Migrated,
  transaction: (work: (sql: Migrated) => Promise<void>) => Promise<void>,
): Promise<void> => {
  await sql.script('create table if not exists schema_version (version integer not null)')
  const [found] = await sql.query<{ version: number }>(
    'select coalesce(max(version), 0) as version from schema_version',
  )
  const version = found?.version ?? 0
  if (version > NEWEST_SCHEMA)
    throw new Newer(
      `This data was written by a newer Crossfade (schema ${version}; this program knows ${NEWEST_SCHEMA}). It is left as it is.`,
    )
  for (const step of numbered.filter((m) => m.version > version))
    await transaction(async (inside) => {
      await inside.script(step.text)
      await inside.query('insert into schema_version (version) values ($1)', [step.version])
    })
}
