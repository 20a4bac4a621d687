import { atom } from 'nanostores'
import { type Answer, request } from './request.ts'

/** A telephone that was let in. */
export interface Telephone {
  readonly id: string
  readonly name: string
  readonly madeAt: string
  readonly usedAt: string
}
/** Whether others of the house may come, where they find this machine, and with which code. */
interface Door {
  readonly open: boolean
  readonly addresses: readonly string[]
  readonly code: { readonly digits: string; readonly until: string } | null
  readonly shutUntil: string | null
  readonly devices: readonly Telephone[]
}

/** Null until it is read. */
export const $door = atom<Answer<Door> | null>(null)

const ask = async (method: string, path: string, body?: unknown): Promise<void> => {
  $door.set(await request<Door>(method, path, body))
}

export const readDoor = (): Promise<void> => ask('GET', 'door')
/** Opens the door and gives out a new code. */
export const letOneIn = (): Promise<void> => ask('POST', 'door/code', {})
export const shutDoor = (): Promise<void> => ask('PUT', 'door', { open: false })
export const openDoor = (): Promise<void> => ask('PUT', 'door', { open: true })
export const revoke = (id: string): Promise<void> => ask('DELETE', `devices/${id}`)
export const rename = (id: string, name: string): Promise<void> => ask('PUT', `devices/${id}`, { name })
