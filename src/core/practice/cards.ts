import { keysOfItem, type PracticeItem, plainKey, type Rest } from './items.ts'
import { firstRung, nextRung, type Rung } from './ladder.ts'
import { DAY_MS, dayOf, type Grade, isClean, type LogEntry } from './log.ts'
import type { Memory, MemoryModel } from './memory.ts'

/** An item in one key, as the log leaves it. `due` and `last` in milliseconds since 1970, null before the first grade. */
export interface Card extends Rung {
  readonly itemId: string
  readonly key: string
  readonly memory: Memory | null
  readonly due: number | null
  readonly last: number | null
  readonly rounds: number
  /** Rounds played cleanly. */
  readonly cleanRounds: number
  readonly grade: Grade | null
  /** Put off or rested now; null where it is not. */
  readonly rest: Rest | null
}

type Graded = LogEntry & { readonly grade: Grade }
type ByCard = ReadonlyMap<string, ReadonlyMap<string, readonly Graded[]>>

const isGraded = (entry: LogEntry): entry is Graded => entry.grade !== null

/** The graded entries of each item and key, in time. */
const gradedIn = (log: readonly LogEntry[]): ByCard => {
  const all = new Map<string, Map<string, Graded[]>>()
  const plain = new Map<string, string>()
  for (const entry of log) {
    if (entry.itemId === null || entry.key === null || !isGraded(entry)) continue
    const key = plain.get(entry.key) ?? plainKey(entry.key)
    plain.set(entry.key, key)
    const keys = all.get(entry.itemId) ?? new Map<string, Graded[]>()
    all.set(entry.itemId, keys)
    const own = keys.get(key)
    if (own) own.push(entry)
    else keys.set(key, [entry])
  }
  for (const keys of all.values()) for (const own of keys.values()) own.sort((a, b) => a.at - b.at)
  return all
}

/** From one grade to the next by the calendar at Greenwich, as the memory model counts them. */
const wholeDays = (from: number, to: number): number => dayOf(to, 0) - dayOf(from, 0)

const cardFrom = (
  item: PracticeItem,
  key: string,
  graded: readonly Graded[],
  model: MemoryModel,
  now: number,
): Card => {
  let rung = firstRung(item.tempo)
  let memory: Memory | null = null
  let due: number | null = null
  let cleanRounds = 0
  for (const [i, { at, grade, tempo }] of graded.entries()) {
    const days = i === 0 ? 0 : wholeDays(graded[i - 1]?.at ?? at, at)
    if (i === graded.length - 1) due = at + model.dueIn(memory, days, grade) * DAY_MS
    memory = model.after(memory, days, grade)
    rung = nextRung(rung, item.tempo, grade, tempo)
    if (isClean(grade)) cleanRounds++
  }
  const last = graded.at(-1)
  return {
    ...{ itemId: item.id, key, ...rung, memory, due, last: last?.at ?? null, rounds: graded.length, cleanRounds },
    grade: last?.grade ?? null,
    rest: restAt(item, key, now),
  }
}

const restAt = ({ rests }: PracticeItem, key: string, now: number): Rest | null =>
  (rests ?? []).find(
    (r) => (r.key === null || plainKey(r.key) === key) && (r.until === null || Date.parse(r.until) > now),
  ) ?? null

/**
 * Every card, worked out from the log and nothing else: items in their order, keys in theirs. Entries of items that are
 * gone are passed over; those in a key that was taken off an item come back with it.
 */
export const cardsOf = (
  items: readonly PracticeItem[],
  log: readonly LogEntry[],
  model: MemoryModel,
  now: number,
  rng: () => number,
): readonly Card[] => {
  const graded = gradedIn(log)
  return items.flatMap((item) => {
    const own = graded.get(item.id)
    return keysOfItem(item, rng, (key) => own?.get(key)?.at(-1)?.at ?? 0).map((key) =>
      cardFrom(item, key, own?.get(key) ?? [], model, now),
    )
  })
}
