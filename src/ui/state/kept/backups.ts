import { atom } from 'nanostores'
import { type Answer, answered, request } from './request.ts'

/** What a backup holds: rows by kind, sounds of takes, when and why it was made. */
export interface Holds {
  readonly made: string
  readonly occasion: string
  readonly holds: Readonly<Record<string, number>>
  readonly sounds: number
  /** Sounds that are not in it, since it stands beside them. */
  readonly soundsLeft: number
}
export interface KeptBackup extends Partial<Holds> {
  readonly name: string
  readonly bytes: number
  readonly readable: boolean
}
interface Backups {
  readonly items: readonly KeptBackup[]
  /** What is damaged of the data, in words. */
  readonly damage: string | null
}

/** The backups that stand beside the data; null until they are read. */
export const $backups = atom<Answer<Backups> | null>(null)

export const readBackups = async (): Promise<void> => {
  $backups.set(await request<Backups>('GET', 'backups'))
}

export type Manner = 'replace' | 'merge'

interface Restored extends Holds {
  readonly how: Manner | null
  /** The backup of what was here before. */
  readonly before: string | null
}

/** A backup that is looked into: one that stands beside the data, by its name, or a file of the player's. */
export interface Looked {
  readonly name: string
  readonly source: string | File
  readonly answer: Answer<Restored> | null
  /** Whether it is being brought in. */
  readonly coming: boolean
}
export const $looked = atom<Looked | null>(null)

/** A large backup takes longer than an ordinary request is waited for. */
const send = (source: string | File, asked: { readonly how?: Manner; readonly look?: boolean }) =>
  typeof source === 'string'
    ? answered<Restored>(() =>
        fetch('/api/v1/restore', {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ of: source, ...asked }),
        }),
      )
    : answered<Restored>(() =>
        fetch(`/api/v1/restore?${new URLSearchParams(Object.entries(asked).map(([k, v]) => [k, String(v)]))}`, {
          method: 'POST',
          headers: { 'content-type': 'application/zip' },
          body: source,
        }),
      )

/** Shows what a backup holds; nothing is changed by that. */
export const lookInto = async (name: string, source: string | File): Promise<void> => {
  $looked.set({ name, source, answer: null, coming: false })
  const answer = await send(source, { look: true })
  if ($looked.get()?.source === source) $looked.set({ name, source, answer, coming: false })
}
export const leaveLooked = (): void => $looked.set(null)

/** Brings in the backup that is looked into; the page then begins anew with what it brought. */
export const bringIn = async (how: Manner): Promise<void> => {
  const looked = $looked.get()
  if (!looked || looked.coming) return
  $looked.set({ ...looked, coming: true })
  const answer = await send(looked.source, { how })
  if (answer.ok) location.reload()
  else $looked.set({ ...looked, answer, coming: false })
}
