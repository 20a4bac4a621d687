import { atom } from 'nanostores'
import { dropStored, readStored, writeStored } from '../kept/browser-store.ts'
import { keepSetting } from '../kept/keep-setting.ts'
import { say } from '../page/notices.ts'
import type { TodayBlock } from './figures.ts'

/** One part of the session as the player arranged it. */
export interface SessionBlock extends TodayBlock {
  readonly id: string
}
/** The session as it goes: its blocks in their order, the one in hand, and which were done. */
export interface Session {
  readonly day: string
  readonly blocks: readonly SessionBlock[]
  readonly at: number
}

const STORED = 'crossfade-session'
const today = (): string => new Date().toDateString()

export const $session = atom<Session | null>(null)

const set = (session: Session | null): void => {
  $session.set(session)
  if (session === null) dropStored(STORED)
  else writeStored(STORED, session)
}

/** A session that was begun today and left goes on. */
export const startSessions = (): void => {
  const stored = readStored<Session>(STORED)
  if (stored?.day === today() && Array.isArray(stored.blocks)) $session.set(stored)
}

const named = (blocks: readonly TodayBlock[]): readonly SessionBlock[] => blocks.map((b, i) => ({ ...b, id: `b${i}` }))

export const beginSession = (blocks: readonly TodayBlock[]): void => set({ day: today(), blocks: named(blocks), at: 0 })
export const endSession = (): void => set(null)

/** The block in hand; null where no session goes. */
export const blockNow = (): SessionBlock | null => {
  const session = $session.get()
  return session?.blocks[session.at] ?? null
}

/** The next block, or the end; gives the block that comes. */
export const nextBlock = (): SessionBlock | null => {
  const session = $session.get()
  if (!session) return null
  const at = session.at + 1
  if (at >= session.blocks.length) {
    set(null)
    say('That was the session. The log has it.')
    return null
  }
  set({ ...session, at })
  return session.blocks[at] ?? null
}

/** The order and the choice of blocks before a session begins: what was dragged, taken out, or put in. */
export const $arranged = atom<{ readonly of: string; readonly blocks: readonly SessionBlock[] } | null>(null)

/** The blocks as they are arranged, as long as they are those of the same list. */
export const arrangedOf = (
  query: string,
  blocks: readonly TodayBlock[],
  arranged: { readonly of: string; readonly blocks: readonly SessionBlock[] } | null,
): readonly SessionBlock[] => (arranged?.of === query ? arranged.blocks : named(blocks))

export const arrange = (of: string, blocks: readonly SessionBlock[]): void => $arranged.set({ of, blocks })

/** Blocks by a name, to be taken again another day: kinds, items and minutes; the cards are those of that day. */
export interface Routine {
  readonly name: string
  readonly blocks: readonly Pick<TodayBlock, 'kind' | 'itemId' | 'minutes'>[]
}
export const routinesFrom = (value: unknown): readonly Routine[] =>
  Array.isArray(value) ? value.filter((r): r is Routine => typeof r?.name === 'string' && Array.isArray(r.blocks)) : []

/** A routine as blocks of a session, without those whose item is gone. */
export const routineBlocks = (
  { blocks, name }: Routine,
  items: readonly { readonly id: string; readonly name: string }[],
): readonly SessionBlock[] =>
  blocks.flatMap(({ kind, itemId, minutes }, i): readonly SessionBlock[] => {
    const item = items.find((one) => one.id === itemId)
    if (itemId !== null && !item) return []
    const plain = { kind, itemId, minutes, name: item?.name ?? null, card: null }
    return [{ ...plain, id: `r${i}`, why: `from the routine ${name}` }]
  })

export const keepRoutine = (all: readonly Routine[], name: string, blocks: readonly SessionBlock[]): void => {
  const plain = blocks.map(({ kind, itemId, minutes }) => ({ kind, itemId, minutes }))
  keepSetting('routines', [...all.filter((r) => r.name !== name), { name, blocks: plain }])
  say(`Kept as the routine ${name}.`, 'undo')
}
