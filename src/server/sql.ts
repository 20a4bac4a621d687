/** All that queries may ask of a database, so that another PostgreSQL could stand behind them. */
export interface Sql {
  query<Row>(text: string, parameters?: readonly unknown[]): Promise<readonly Row[]>
}

export interface Database extends Sql {
  /** All or nothing; what the work throws takes everything back. */
  transaction<T>(work: (sql: Sql) => Promise<T>): Promise<T>
  close(): Promise<void>
  readonly schemaVersion: number
}
