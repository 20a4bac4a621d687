import type { Card } from './cards.ts'
import type { PracticeItem } from './items.ts'
import { dayOf, daysBetween, type LogEntry, startOfDay } from './log.ts'
import type { MemoryModel } from './memory.ts'

export type BlockKind = 'warm-up' | 'due' | 'new' | 'combined' | 'free' | 'break'

/** One part of a session; `why` says in words why it stands there. */
export interface Block {
  readonly kind: BlockKind
  readonly itemId: string | null
  readonly card: Card | null
  readonly minutes: number
  readonly why: string
}

export interface LeftOut {
  readonly itemId: string
  readonly key: string
  readonly why: string
}

export interface Today {
  readonly blocks: readonly Block[]
  readonly left: readonly LeftOut[]
}

export interface TodayAsked {
  readonly items: readonly PracticeItem[]
  readonly cards: readonly Card[]
  readonly log: readonly LogEntry[]
  readonly minutes: number
  readonly now: number
  /** Minutes east of Greenwich. */
  readonly zone: number
  readonly model: MemoryModel
}

/** Minutes of each kind of block. */
const LENGTH: Readonly<Record<BlockKind, number>> = { 'warm-up': 3, due: 3, new: 4, combined: 4, free: 3, break: 2 }
/** A break after so many minutes. */
export const BREAK_AFTER = 20
/** Away for so many days, one comes back to a shorter list with nothing new in it. */
const AWAY_DAYS = 7
/** Kinds of items that put sounds together. */
const COMBINED: ReadonlySet<string> = new Set(['combine', 'route', 'out-in'])

const days = (n: number): string => (n === 1 ? 'a day' : `${n} days`)

const dueWhy = (card: Card, now: number, model: MemoryModel): string => {
  const since = Math.max(0, Math.round(daysBetween(card.last ?? now, now)))
  const held = card.memory ? Math.round(model.held(card.memory, daysBetween(card.last ?? now, now)) * 100) : 0
  const when = since === 0 ? 'earlier today' : `${days(since)} ago`
  return `last played ${when}, ${card.grade}; ${held} in 100 that it still lies in the hands`
}

/** Cards that are due by the end of the day, those most likely to be lost first. */
export const dueCards = ({ cards, now, zone, model }: TodayAsked): readonly Card[] => {
  const end = startOfDay(dayOf(now, zone) + 1, zone)
  const heldNow = (c: Card): number =>
    c.memory && c.last !== null ? model.held(c.memory, daysBetween(c.last, now)) : 0
  return cards
    .filter((c) => c.rest === null && c.due !== null && c.due < end)
    .map((card) => ({ card, held: heldNow(card) }))
    .sort((a, b) => a.held - b.held)
    .map(({ card }) => card)
}

const lastPlayed = (log: readonly LogEntry[]): number | null => {
  let last: number | null = null
  for (const { at, kind } of log) if (kind !== 'word' && (last === null || at > last)) last = at
  return last
}

const block = (kind: BlockKind, card: Card | null, why: string, itemId: string | null = null): Block => ({
  ...{ kind, itemId: card?.itemId ?? itemId, card, minutes: LENGTH[kind], why },
})

/** A break stands after every twenty minutes of playing that more follows upon. */
const withBreaks = (blocks: readonly Block[]): readonly Block[] => {
  let since = 0
  return blocks.flatMap((b) => {
    const rest = since > 0 && since + b.minutes > BREAK_AFTER
    since = rest ? b.minutes : since + b.minutes
    return rest ? [block('break', null, 'Put it down, stand up, let the ears and hands rest.'), b] : [b]
  })
}

/** What is slow and safe to begin with: the card that sits best, else the first there is. */
const warmUpCard = ({ cards, items }: TodayAsked): Card | null => {
  const quiz = new Set(items.filter((i) => i.of.kind === 'quiz').map((i) => i.id))
  const played = cards.filter((c) => c.rest === null && !quiz.has(c.itemId))
  const sits = (c: Card): number => c.memory?.stability ?? 0
  return played.reduce<Card | null>((a, b) => (a === null || sits(b) > sits(a) ? b : a), null)
}

/** The list for so many minutes. A long absence makes it shorter, not longer; what had no room is told. */
export const todayList = (asked: TodayAsked): Today => {
  const { items, cards, log, minutes, now, model } = asked
  const due = dueCards(asked)
  const last = lastPlayed(log)
  const away = last === null ? 0 : Math.floor(daysBetween(last, now))
  const isBack = away >= AWAY_DAYS
  const usable = minutes - Math.floor(minutes / (BREAK_AFTER + LENGTH.break)) * LENGTH.break
  const combines = new Set(items.filter((i) => COMBINED.has(i.of.kind)).map((i) => i.id))
  const isDue = new Set(due)
  const fresh = cards.find((c) => c.last === null && c.rest === null && !combines.has(c.itemId))
  const combined = cards.find((c) => combines.has(c.itemId) && c.rest === null && !isDue.has(c))
  const parts = {
    warmUp:
      minutes >= 8 ? [block('warm-up', warmUpCard(asked), 'slow and even, before anything is asked of the hands')] : [],
    fresh:
      fresh && !isBack && minutes >= (due.length > 1 ? 20 : 12) ? [block('new', fresh, 'one new thing a day')] : [],
    combined: combined && minutes >= 20 ? [block('combined', combined, 'what was apart is put together')] : [],
    free: minutes >= 12 ? [block('free', null, 'one chorus as you like, nothing graded')] : [],
  }
  const around = [...parts.warmUp, ...parts.fresh, ...parts.combined, ...parts.free].reduce(
    (sum, b) => sum + b.minutes,
    0,
  )
  const room = Math.max(0, Math.floor((usable - around) / LENGTH.due))
  const fit = isBack ? Math.ceil(room / 2) : room
  const back = isBack ? `back after ${days(away)}, so the list is short; ` : ''
  const repeats = due.slice(0, fit).map((c, i) => block('due', c, `${i === 0 ? back : ''}${dueWhy(c, now, model)}`))
  return {
    blocks: withBreaks([...parts.warmUp, ...repeats, ...parts.fresh, ...parts.combined, ...parts.free]),
    left: due.slice(fit).map(({ itemId, key }) => ({
      ...{ itemId, key },
      why: isBack ? 'kept for another day after the time away' : `no room in ${minutes} minutes`,
    })),
  }
}
