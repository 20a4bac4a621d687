import { boardFerry as board } from '../../scripts/board.mjs'
import { call } from './server.ts'

/** Puts the ferry band on a server; gives the charts' ids by title, and the practice items' by name. */
export const boardFerry = async (address: string) => {
  const post = async (path: string, row: object) => (await call(address, 'POST', path, row)).body
  const putSound = async (id: string, body: Uint8Array<ArrayBuffer>) => {
    await fetch(`${address}api/v1/takes/${id}/sound`, {
      method: 'PUT',
      headers: { 'content-type': 'audio/webm' },
      body,
    })
  }
  const { charts, items, takes } = await board(post, putSound)
  await call(address, 'POST', 'settings', { name: 'instrument', value: 'concert' })
  return { charts, items, takes } as {
    readonly charts: ReadonlyMap<string, string>
    readonly items: ReadonlyMap<string, string>
    readonly takes: ReadonlyMap<string, string>
  }
}
