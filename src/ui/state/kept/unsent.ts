import { dropStored, readStored, storedKeys, writeStored } from './browser-store.ts'
import { type Fields, isEmpty } from './edits.ts'
import type { KindName } from './row-types.ts'

/** What a tab holds of a row that the server did not acknowledge. Version 0: of a row that was never kept. */
export interface Unsent {
  readonly kind: KindName
  readonly id: string
  readonly version: number
  readonly title: string
  /** The whole row as it was typed, and of it what is not kept. */
  readonly row: Fields
  readonly patch: Fields
}

const PREFIX = 'crossfade-unsent '

/** A word no other tab has. */
const word = (): string => `${Date.now().toString(36)}${Math.random().toString(36).slice(2, 10)}`
/** What tells this tab from every other. */
export const TAB = word()
let count = 0
export const newStep = (): string => `${TAB}-${count++}`
export const isOwnStep = (step: string | null): boolean => step?.startsWith(`${TAB}-`) ?? false

const keyOf = (kind: KindName, id: string, tab: string): string => `${PREFIX}${tab} ${kind} ${id}`
const tabOf = (key: string): string => key.slice(PREFIX.length).split(' ')[0] ?? ''

/** Holds what is not kept of a row; an empty patch lets go of it. Tells whether this browser holds it. */
export const holdUnsent = (unsent: Unsent): boolean => {
  if (!isEmpty(unsent.patch)) return writeStored(keyOf(unsent.kind, unsent.id, TAB), unsent)
  letGoOfMine(unsent.kind, unsent.id)
  return false
}
export const letGoOfMine = (kind: KindName, id: string): void => dropStored(keyOf(kind, id, TAB))

export const letGoOfUnsent = dropStored

/** Each tab holds a lock as long as it lives, so that others know that it will send what it holds. */
export const markTab = (): void => {
  void globalThis.navigator?.locks?.request(TAB, () => new Promise(() => undefined)).catch(() => undefined)
}

const livingTabs = async (): Promise<ReadonlySet<string>> => {
  const known = await globalThis.navigator?.locks?.query().catch(() => null)
  return new Set([TAB, ...(known?.held ?? []).map((lock) => lock.name ?? '')])
}

export interface Left extends Unsent {
  readonly key: string
}

/** What tabs that are gone left unsent. */
export const leftUnsent = async (): Promise<readonly Left[]> => {
  const living = await livingTabs()
  return storedKeys(PREFIX).flatMap((key) => {
    const left = living.has(tabOf(key)) ? null : readStored<Unsent>(key)
    return left ? [{ ...left, key }] : []
  })
}
