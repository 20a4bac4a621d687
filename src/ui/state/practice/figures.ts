import { atom, computed, type WritableAtom } from 'nanostores'
import type { Block, Confusion, Covered, Day, Grade, Rest } from '../../../core/index.ts'
import { type Answer, request } from '../kept/request.ts'
import { $rows } from '../kept/rows.ts'

/** A card as the server answers it; moments as text, shares 0 to 1. */
export interface CardFigures {
  readonly itemId: string
  readonly key: string
  readonly tempo: number
  readonly clean: number
  readonly bad: number
  readonly best: number | null
  readonly due: string | null
  readonly last: string | null
  readonly rounds: number
  readonly share: number | null
  readonly grade: Grade | null
  readonly stability: number | null
  readonly difficulty: number | null
  readonly held: number | null
  readonly rest: Rest | null
}

export interface TodayBlock {
  readonly kind: Block['kind']
  readonly itemId: string | null
  readonly name: string | null
  readonly card: CardFigures | null
  readonly minutes: number
  readonly why: string
}
export interface TodayFigures {
  readonly blocks: readonly TodayBlock[]
  readonly left: readonly {
    readonly itemId: string
    readonly name: string | null
    readonly key: string
    readonly why: string
  }[]
}
export type CoveredCell = Omit<Covered, 'last'> & { readonly last: string | null }
export interface CourseFigures {
  readonly days: readonly Day[]
  readonly tempo: readonly { readonly at: string; readonly tempo: number; readonly clean: boolean }[]
  readonly confusions: readonly Confusion[]
}

/** Figures as they stand: while they are asked for anew the last stay in sight. */
export interface Asked<T> {
  readonly state: 'loading' | 'ready' | 'failed'
  readonly query: string
  readonly value: T | null
  readonly why: string
}
const nothing = <T>(): Asked<T> => ({ state: 'loading', query: '', value: null, why: '' })

export const $today = atom<Asked<TodayFigures>>(nothing())
export const $cards = atom<Asked<{ readonly cards: readonly CardFigures[] }>>(nothing())
export const $coverage = atom<Asked<{ readonly cells: readonly CoveredCell[] }>>(nothing())
export const $course = atom<Asked<CourseFigures>>(nothing())

/** A card as it was answered last. */
export const cardOf = (itemId: string, key: string): CardFigures | undefined =>
  $cards.get().value?.cards.find((c) => c.itemId === itemId && c.key === key)

/** What was kept of items and the log: with another of it every figure is asked for anew. */
export const $practised = computed([$rows.items, $rows.log], (items, log) =>
  [...Object.values(items), ...Object.values(log)]
    .filter((s) => s.state === 'kept')
    .map((s) => `${s.row.id} ${s.row.version}`)
    .join(),
)

const zone = (): string => String(-new Date().getTimezoneOffset())

const ask = async <T>(store: WritableAtom<Asked<T>>, path: string, query: Readonly<Record<string, string>>) => {
  const asked = `${path}?${new URLSearchParams({ zone: zone(), ...query })}`
  const before = store.get()
  store.set({ ...before, state: 'loading', query: asked })
  const answer: Answer<T> = await request('GET', asked)
  if (store.get().query !== asked) return
  store.set(
    answer.ok
      ? { state: 'ready', query: asked, value: answer.value, why: '' }
      : { ...before, state: 'failed', query: asked, why: answer.detail },
  )
}

export const askToday = (minutes: number): Promise<void> => ask($today, 'practice/today', { minutes: String(minutes) })
export const askCards = (): Promise<void> => ask($cards, 'practice/cards', {})
export const askCoverage = (): Promise<void> => ask($coverage, 'practice/coverage', {})
export const askCourse = (days: number, itemId: string, key: string): Promise<void> =>
  ask($course, 'practice/course', { days: String(days), itemId, key })
