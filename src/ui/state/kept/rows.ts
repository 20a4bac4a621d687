import { atom, type WritableAtom } from 'nanostores'
import { remember } from '../page/history.ts'
import type { Fields } from './edits.ts'
import { keptRow } from './kept-row.ts'
import { KINDS } from './kinds.ts'
import { type Answer, request } from './request.ts'
import type { KindName, RowOf } from './row-types.ts'
import type { HowChanged, KeptRow, Ports, ServerRow, Standing } from './standing.ts'
import { holdUnsent, type Left, leftUnsent, letGoOfMine, letGoOfUnsent, newStep } from './unsent.ts'

type Standings<K extends KindName> = Readonly<Record<string, Standing<RowOf[K]>>>

/** How every row this page knows of stands, by kind and id; settings by their name. */
export const $rows: { readonly [K in KindName]: WritableAtom<Standings<K>> } = {
  charts: atom({}),
  routes: atom({}),
  lines: atom({}),
  ideas: atom({}),
  takes: atom({}),
  items: atom({}),
  log: atom({}),
  settings: atom({}),
}

const kept: Readonly<Record<KindName, Map<string, KeptRow<ServerRow>>>> = {
  charts: new Map(),
  routes: new Map(),
  lines: new Map(),
  ideas: new Map(),
  takes: new Map(),
  items: new Map(),
  log: new Map(),
  settings: new Map(),
}

const keyOf = (kind: KindName, row: ServerRow): string => (kind === 'settings' ? String(row.name) : row.id)

/** Standings of rows that come together are shown together. */
let gathered: Record<string, Standing<ServerRow>> | null = null

const show = (kind: KindName, key: string, standing: Standing<ServerRow>): void => {
  if (gathered) gathered[key] = standing
  else $rows[kind].set({ ...$rows[kind].get(), [key]: standing } as never)
}

const atStep = (step: string): string => `?${new URLSearchParams({ step })}`

/** A row that lies over a chart which is not kept yet waits for it. */
const chartKept = async ({ chartId }: ServerRow): Promise<boolean> => {
  const chart = kept.charts.get(String(chartId))
  return chart === undefined || chart.now().row.version > 0 || (await chart.flush())
}
const NO_CHART = { ok: false, code: 'unreachable', detail: 'Its chart is not kept yet.', passing: true } as const

let turn: Promise<unknown> = Promise.resolve()
let isDead = false
/**
 * Requests of all rows go one after another, so that the server's history is in the order things were done. When it
 * answers again, everything that waits is sent.
 */
const inTurn = <T>(send: () => Promise<Answer<T>>): Promise<Answer<T>> => {
  const mine = turn.then(send)
  turn = mine.then((answer) => {
    const wasDead = isDead
    isDead = !answer.ok && answer.passing
    if (wasDead && !isDead) void flushAll()
  })
  return mine
}

/** What other rows still wait to send goes first, before something else is done. */
const sendOthers = (kind: KindName, key: string): void => {
  for (const name of Object.keys(kept) as KindName[])
    for (const [other, { state }] of Object.entries($rows[name].get()))
      if ((name !== kind || other !== key) && state === 'waiting') void kept[name].get(other)?.flush()
}

const fieldsOf = (kind: KindName, row: ServerRow): Fields =>
  Object.fromEntries(KINDS[kind].fields.map((field) => [field, row[field]]))
const titleOf = (kind: KindName, row: ServerRow): string => (KINDS[kind].title as (row: ServerRow) => string)(row)

const portsOf = (kind: KindName, key: string): Ports<ServerRow> => ({
  make: async (row, body, step): Promise<Answer<ServerRow>> =>
    (await chartKept(row))
      ? inTurn(() => request('POST', `${kind}${atStep(step)}`, { ...body, id: row.id }))
      : NO_CHART,
  change: (row, body, step) =>
    inTurn(() => request('PUT', `${kind}/${row.id}${atStep(step)}`, { ...body, version: row.version })),
  later: (work, ms) => {
    const timer = setTimeout(work, ms)
    return () => clearTimeout(timer)
  },
  now: () => performance.now(),
  newStep,
  hold: (row, patch) => {
    const { id, version } = row
    const unsent = { kind, id, version, title: titleOf(kind, row), row: fieldsOf(kind, { ...row, ...patch }), patch }
    return holdUnsent(unsent)
  },
  tell: (standing) => show(kind, key, standing),
})

const begin = (kind: KindName, row: ServerRow, join?: string): KeptRow<ServerRow> => {
  const key = keyOf(kind, row)
  const one = keptRow<ServerRow>(KINDS[kind], row, portsOf(kind, key), join)
  kept[kind].set(key, one)
  show(kind, key, one.now())
  return one
}

/** What tabs that are gone left unsent: changes of a row are offered where it is open, others by themselves. */
export const $left = atom<readonly Left[]>([])

export const lookForLeft = async (): Promise<void> => $left.set(await leftUnsent())

/** Offers what was left of a row, where that is not kept by now. */
export const offerLeft = (kind: KindName, id: string): void => offerTo(kind, kept[kind].get(id))
const offerTo = (kind: KindName, one: KeptRow<ServerRow> | undefined): void => {
  if (!one || one.now().offered) return
  const { id } = one.now().row
  const left = $left.get().find((l) => l.version > 0 && l.kind === kind && l.id === id)
  if (!left) return
  if (!one.offer(left)) dropLeft(left)
}

/** Lets go of what was left. */
export const dropLeft = ({ key }: Pick<Left, 'key'>): void => {
  letGoOfUnsent(key)
  $left.set($left.get().filter((l) => l.key !== key))
}

/** Takes a row as the server has it. */
export const adoptRow = <K extends KindName>(kind: K, row: RowOf[K]): void => {
  const known = kept[kind].get(keyOf(kind, row))
  if (known) known.adopt(row)
  else offerTo(kind, begin(kind, row))
}

/** Takes many rows of a kind at once. */
export const adoptRows = <K extends KindName>(kind: K, rows: readonly RowOf[K][]): void => {
  const mine: Record<string, Standing<ServerRow>> = {}
  gathered = mine
  for (const row of rows) adoptRow(kind, row)
  gathered = null
  $rows[kind].set({ ...$rows[kind].get(), ...mine } as never)
}

/** The row is gone, here and there. */
export const forgetRow = (kind: KindName, id: string): void => {
  const one = kept[kind].get(id)
  if (!one) return
  kept[kind].delete(id)
  letGoOfMine(kind, one.now().row.id)
  const { [id]: _, ...others } = $rows[kind].get()
  $rows[kind].set(others as never)
}

/** Under what this page knows a row of an id: settings by their name. */
export const keyOfRow = (kind: KindName, id: string): string =>
  Object.entries($rows[kind].get()).find(([, standing]) => standing.row.id === id)?.[0] ?? id

export const standingOf = <K extends KindName>(kind: K, id: string): Standing<RowOf[K]> | undefined =>
  $rows[kind].get()[id]

/** The one way to change what is kept; edits to a row that is not known are none. */
export const changeRow = <K extends KindName>(
  kind: K,
  id: string,
  patch: Partial<RowOf[K]>,
  how: HowChanged = {},
): void => {
  sendOthers(kind, id)
  if (kept[kind].get(id)?.change(patch, how)) remember({ kind: 'kept', of: { kind, id } })
}
export const holdUnread = <K extends KindName>(kind: K, id: string, unread: Partial<RowOf[K]>): void =>
  kept[kind].get(id)?.holdUnread(unread)

export const settleRow = (kind: KindName, id: string, whose: 'mine' | 'theirs'): void =>
  kept[kind].get(id)?.settle(whose)

/** Takes up what was offered of a row, or drops it; what another tab left is offered next. */
export const answerOffer = (kind: KindName, id: string, take: boolean): void => {
  const one = kept[kind].get(id)
  const offered = one?.now().offered
  if (!one || !offered) return
  one.answerOffer(take)
  if (take) remember({ kind: 'kept', of: { kind, id } })
  dropLeft(offered)
  offerTo(kind, one)
}

/** An id no other row has. */
const newId = (): string => {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80
  const hex = Array.from(bytes, (b) => b.toString(16).padStart(2, '0')).join('')
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')
}

type Made = 'id' | 'version' | 'createdAt' | 'updatedAt'

/** Makes a row: it is there at once, and kept as soon as the server takes it. Changes that share `join` are undone with it. Gives its id. */
export const addRow = <K extends KindName>(kind: K, fields: Omit<RowOf[K], Made>, join?: string): string =>
  beginNew(kind, newId(), fields, join)

const beginNew = (kind: KindName, id: string, fields: Fields, join?: string): string => {
  const now = new Date().toISOString()
  const row: ServerRow = { ...fields, id, version: 0, createdAt: now, updatedAt: now }
  sendOthers(kind, keyOf(kind, row))
  begin(kind, row, join)
  remember({ kind: 'kept', of: { kind, id: keyOf(kind, row) } })
  return id
}

/** Keeps what was left of a row that was never kept, or of one that is gone, as a new one. Gives its id. */
export const keepLeft = (left: Left): string => {
  const id = beginNew(left.kind, left.version === 0 ? left.id : newId(), left.row)
  dropLeft(left)
  return id
}

/** Keeps a row that was removed elsewhere as a new one, with all that was changed in it here. Gives its id. */
export const keepAnew = (kind: KindName, id: string): string | null => {
  const one = kept[kind].get(id)
  if (!one) return null
  const { row, unread } = one.now()
  forgetRow(kind, id)
  return beginNew(kind, newId(), { ...fieldsOf(kind, row), ...unread })
}

/** Whether all that was changed in a row is kept now; sends it first. */
export const flushRow = async (kind: KindName, id: string): Promise<boolean> =>
  (await kept[kind].get(id)?.flush()) ?? true

export const flushAll = async (): Promise<void> => {
  const all = Object.values(kept).flatMap((rows) => [...rows.values()])
  await Promise.all(all.filter((one) => one.now().state !== 'kept').map((one) => one.flush()))
}

/** Takes back the last change to a row that the server does not know of yet; tells whether there was one. */
export const dropUnsent = (kind: KindName, id: string): boolean => kept[kind].get(id)?.dropLast() ?? false

/** Removes a row, or one that was never kept lets go of. */
export const removeRow = async (kind: KindName, id: string): Promise<Answer<unknown>> => {
  const one = kept[kind].get(id)
  sendOthers(kind, id)
  await one?.flush()
  const row = one?.now().row
  if (row?.version === 0) {
    forgetRow(kind, id)
    return { ok: true, value: null }
  }
  const answer = await inTurn(() => request('DELETE', `${kind}/${row?.id ?? id}`))
  if (!answer.ok && answer.code !== 'not_found') return answer
  forgetRow(kind, id)
  if (answer.ok) remember({ kind: 'kept', of: { kind, id } })
  return { ok: true, value: null }
}
