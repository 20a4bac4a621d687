import { test } from '@playwright/test'
import { type PostgresServer, startPostgres } from '../postgres.ts'
import { emptyData, type Running, removeData, startServer } from '../serving.ts'

/** One server on empty data for all the tests of a file; `fill` may put something in first. */
export const serverOfFile = (fill: (address: string) => Promise<unknown> = async () => undefined) => {
  const data = emptyData()
  let server: Running
  let postgres: PostgresServer | null = null
  let url = ''
  test.beforeAll(async () => {
    postgres = test.info().project.metadata.onServer ? await startPostgres() : null
    url = postgres?.newDatabase() ?? ''
    server = await startServer(data, '0', [], { DATABASE_URL: url })
    await fill(server.address)
  })
  test.afterAll(async () => {
    await server.end()
    postgres?.end()
    removeData(data)
  })
  return {
    data,
    get address() {
      return server.address
    },
    memory: (): number => server.memory(),
    kill: async (): Promise<void> => {
      await server.end('SIGKILL')
    },
    /** Starts it again where it was. */
    again: async (): Promise<void> => {
      server = await startServer(data, new URL(server.address).port, [], { DATABASE_URL: url })
    },
  }
}

/** One JSON request; the body is read whatever the status. */
export const call = async (
  base: string,
  method: string,
  path: string,
  body?: unknown,
  headers: Record<string, string> = {},
) => {
  const response = await fetch(`${base}api/v1/${path}`, {
    method,
    headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
    ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
  })
  return { status: response.status, type: response.headers.get('content-type') ?? '', body: await response.json() }
}
