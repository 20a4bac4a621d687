import { boardFerry as board } from '../../scripts/board.mjs'
import { call } from './server.ts'

/** Puts the ferry band on a server; gives the charts' ids by title, and the practice items' by name. */
export const boardFerry = async (address: string) => {
  const post = async (path: string, row: object) => (await call(address, 'POST', path, row)).body
  const { charts, items } = await board(post)
  await call(address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
  return { charts, items } as {
    readonly charts: ReadonlyMap<string, string>
    readonly items: ReadonlyMap<string, string>
  }
}
