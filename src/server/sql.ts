/** All that queries may ask of a database, so that another PostgreSQL could stand behind them. */
export interface Sql {
  query<Row>(text: string, parameters?: readonly unknown[]): Promise<readonly Row[]>
}

export const CHANNEL = 'crossfade'
/** Tells what is in its parameter, JSON of at most 8,000 bytes, to all that listen. */
export const TELL = `select pg_notify('${CHANNEL}', $1)`
export const MISSED = JSON.stringify({ news: 'missed' })

export interface Database extends Sql {
  /** All or nothing; what the work throws takes everything back. Refused at once where the disk has no room. */
  transaction<T>(work: (sql: Sql) => Promise<T>): Promise<T>
  /** What is read in it is of one moment; it writes nothing. */
  snapshot<T>(work: (sql: Sql) => Promise<T>): Promise<T>
  /** Throws the problem that says why so many bytes cannot be kept now. */
  hasRoomFor(bytes: number): void
  /** Hears what `TELL` says in this process and in every other on the same database; what may have been missed is `MISSED`. */
  listen(hears: (told: string) => void): Promise<void>
  close(): Promise<void>
  readonly schemaVersion: number
  /** The data directory, in which the sounds and the backups lie too. */
  readonly directory: string
}
