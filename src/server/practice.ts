import Joi from 'joi'
import {
  type Card,
  cardsOf,
  confusionsIn,
  coverageOf,
  DAY_MS,
  daysOf,
  type LogEntry,
  type PracticeItem,
  tempoCourse,
  todayList,
} from '../core/index.ts'
import { type LogLine, writeLog } from '../formats/log-csv.ts'
import { MEMORY } from '../memory/memory.ts'
import { drawnFrom } from './drawn.ts'
import { PRACTICE } from './queries.ts'
import type { Sql } from './sql.ts'

/** When it is asked, and how far east of Greenwich; the program's own clock where nothing is said. */
interface When {
  readonly now: string
  readonly zone: number
}
const WHEN = {
  now: Joi.string()
    .isoDate()
    .default(() => new Date().toISOString()),
  zone: Joi.number()
    .integer()
    .min(-840)
    .max(840)
    .default(() => -new Date().getTimezoneOffset()),
}

export type TodayAsked = When & { readonly minutes: number }
export type CourseAsked = When & { readonly days: number; readonly itemId: string; readonly key: string }
export const PRACTICE_QUERIES = {
  today: Joi.object<TodayAsked>({ ...WHEN, minutes: Joi.number().min(1).max(480).default(25) }),
  cards: Joi.object<When>(WHEN),
  coverage: Joi.object<When>(WHEN),
  course: Joi.object<CourseAsked>({
    ...WHEN,
    days: Joi.number().integer().min(1).max(1000).default(30),
    itemId: Joi.string().max(60).allow('').default(''),
    key: Joi.string().max(60).allow('').default(''),
  }),
}

interface Kept {
  readonly items: readonly PracticeItem[]
  readonly log: readonly LogEntry[]
}

type Cells = readonly [at: number, ...rest: (string | number | null | LogEntry['answered'])[]]
const entryFrom = ([at, kind, itemId, key, tempo, grade, minutes, answered]: Cells) =>
  ({ at, kind, itemId, key, tempo, grade, minutes, answered }) as LogEntry

/** The log as it was read last of each database, with the state it was read in. */
const read = new WeakMap<Sql, { readonly state: string; readonly log: readonly LogEntry[] }>()

/** The log; read again only where anything of it has changed. */
const logIn = async (db: Sql): Promise<readonly LogEntry[]> => {
  const [now] = await db.query<{ state: string }>(PRACTICE.logState)
  const known = read.get(db)
  if (known && now && known.state === now.state) return known.log
  const [row] = await db.query<{ entries: string | null }>(PRACTICE.log)
  const log = (JSON.parse(row?.entries ?? '[]') as readonly Cells[]).map(entryFrom)
  if (now) read.set(db, { state: now.state, log })
  return log
}

const keptIn = async (db: Sql): Promise<Kept> => {
  const [items, log] = await Promise.all([db.query<PracticeItem>(PRACTICE.items), logIn(db)])
  return { items, log }
}

/** Keys by chance are the same all day. */
const chanceOf = (now: number): (() => number) => drawnFrom(Math.floor(now / DAY_MS))
const iso = (at: number | null): string | null => (at === null ? null : new Date(at).toISOString())

const cardAnswer = ({ memory, due, last, cleanRounds, ...card }: Card, now: number) => ({
  ...card,
  due: iso(due),
  last: iso(last),
  share: card.rounds === 0 ? null : cleanRounds / card.rounds,
  stability: memory?.stability ?? null,
  difficulty: memory?.difficulty ?? null,
  held: memory && last !== null ? MEMORY.held(memory, (now - last) / DAY_MS) : null,
})

const cardsNow = ({ items, log }: Kept, now: number): readonly Card[] => cardsOf(items, log, MEMORY, now, chanceOf(now))

export const todayAnswer = async (db: Sql, { minutes, now: at, zone }: TodayAsked) => {
  const kept = await keptIn(db)
  const now = Date.parse(at)
  const { blocks, left } = todayList({ ...kept, cards: cardsNow(kept, now), minutes, now, zone, model: MEMORY })
  const names = new Map(kept.items.map((i) => [i.id, i.name]))
  return {
    blocks: blocks.map((b) => ({
      ...b,
      name: names.get(b.itemId ?? '') ?? null,
      card: b.card && cardAnswer(b.card, now),
    })),
    left: left.map((l) => ({ ...l, name: names.get(l.itemId) ?? null })),
  }
}

export const cardsAnswer = async (db: Sql, { now }: When) => ({
  cards: cardsNow(await keptIn(db), Date.parse(now)).map((c) => cardAnswer(c, Date.parse(now))),
})

export const coverageAnswer = async (db: Sql, _: When) => {
  const items = await db.query<Pick<PracticeItem, 'id' | 'of'>>(PRACTICE.everyItem)
  return { cells: coverageOf(items, await logIn(db)).map((c) => ({ ...c, last: iso(c.last) })) }
}

/** Day by day, the tempo of one card where one is named, and what is taken for what. */
export const courseAnswer = async (db: Sql, { now, zone, days, itemId, key }: CourseAsked) => {
  const log = await logIn(db)
  const to = Date.parse(now)
  return {
    days: daysOf(log, to - (days - 1) * DAY_MS, to, zone),
    tempo: tempoCourse(log, itemId, key).map((p) => ({ ...p, at: iso(p.at) })),
    confusions: confusionsIn(log),
  }
}

/** Every entry with the name of its item, also of one that is gone. */
export const exportAnswer = async (db: Sql): Promise<string> => writeLog(await db.query<LogLine>(PRACTICE.lines))

const text = Joi.string().required()
const orNull = (schema: Joi.Schema) => schema.allow(null).required()
const whole = Joi.number().integer().required()
const share = orNull(Joi.number())
const CARD = Joi.object({
  ...{ itemId: text, key: text, tempo: Joi.number().required(), clean: whole, bad: whole, best: share },
  ...{ due: orNull(Joi.string().isoDate()), last: orNull(Joi.string().isoDate()), rounds: whole, share },
  ...{ stability: share, difficulty: share, held: share, grade: orNull(Joi.string()), rest: orNull(Joi.object()) },
})
const list = (items: Joi.Schema) => Joi.array().items(items).required()
export const PRACTICE_ANSWERS = {
  'practice/today': Joi.object({
    blocks: list(
      Joi.object({
        ...{ kind: text, itemId: orNull(Joi.string()), name: orNull(Joi.string()), card: orNull(CARD) },
        ...{ minutes: Joi.number().required(), why: text },
      }),
    ),
    left: list(Joi.object({ itemId: text, name: orNull(Joi.string()), key: text, why: text })),
  }),
  'practice/cards': Joi.object({ cards: list(CARD) }),
  'practice/coverage': Joi.object({
    cells: list(
      Joi.object({ family: text, key: text, last: orNull(Joi.string()), tempo: share, clean: share, rounds: whole }),
    ),
  }),
  'practice/course': Joi.object({
    days: list(Joi.object({ day: text, minutes: Joi.number().required(), rounds: whole, clean: share })),
    tempo: list(Joi.object({ at: text, tempo: Joi.number().required(), clean: Joi.boolean().required() })),
    confusions: list(Joi.object({ topic: text, right: text, given: text, times: whole, asked: whole })),
  }),
} as const
