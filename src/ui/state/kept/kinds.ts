import { barsChanged, toGlyphs } from '../../../core/index.ts'
import { type Merge, mergeByKey } from './edits.ts'
import type { KindName, LogRow, RouteRow, RowOf } from './row-types.ts'
import type { RowKind } from './standing.ts'

interface Kind<K extends KindName> extends RowKind {
  readonly fields: readonly (keyof RowOf[K] & string)[]
  /** One of its kind, in a word. */
  readonly noun: string
  /** What a row of it is called. */
  readonly title: (row: RowOf[K]) => string
  /** Its fields in a player's words, where one is changed by itself. */
  readonly words: Readonly<Partial<Record<keyof RowOf[K] & string, string>>>
}

const byPlace: Merge = mergeByKey((o) => `${o.bar} ${o.beat}`)

/** An entry of the log in words: what was graded, or the first of what was written. */
const logTitle = ({ kind, grade, key, text }: LogRow): string => {
  if (kind === 'word') return `“${(text ?? '').slice(0, 30)}”`
  return `the ${kind === 'quiz' ? 'answer' : 'round'}${key === null ? '' : ` in ${toGlyphs(key)}`}, ${grade ?? 'not graded'}`
}

const SETTINGS: Readonly<Record<string, string>> = {
  keys: 'whether keys act',
  naming: 'how pentatonics are named',
  direction: 'how roots are spelled',
  leftHanded: 'which hand frets',
  weights: 'your ears',
  hearAs: 'how an overlay is heard',
  hearTempo: 'the tempo an overlay is heard at',
  mix: 'the levels of the band',
  countIn: 'the count-in',
  follow: 'following the music',
  practice: 'how you practise',
  routines: 'your routines',
}

export const KINDS: { readonly [K in KindName]: Kind<K> } = {
  charts: {
    fields: ['title', 'text', 'tags', 'overrides'],
    merges: { overrides: byPlace },
    asks: true,
    noun: 'chart',
    title: (row) => row.title,
    words: { text: 'the text', tags: 'the tags', overrides: 'your word on a chord' },
  },
  routes: {
    fields: ['name', 'note', 'chartId', 'chartVersion', 'steps', 'rules', 'inHand'],
    merges: { steps: byPlace },
    asks: true,
    noun: 'route',
    title: (row) => row.name,
    words: { name: 'the name', steps: 'the steps', note: 'the note' },
  },
  lines: {
    fields: ['name', 'chartId', 'text', 'line', 'tags', 'disputed', 'played', 'routeId'],
    merges: {},
    asks: true,
    noun: 'line',
    title: (row) => row.name,
    words: { name: 'the name', line: 'the notes', disputed: 'what you dispute' },
  },
  ideas: {
    fields: ['overlay', 'chord', 'next', 'note', 'tags', 'chartId', 'bar', 'beat'],
    merges: {},
    asks: true,
    noun: 'idea',
    title: (row) => `${row.overlay} over ${row.chord}`,
    words: { bar: 'the place', beat: 'the place', chartId: 'the place', note: 'the note' },
  },
  takes: {
    fields: [
      ...(['name', 'chartId', 'itemId', 'key', 'text', 'overrides', 'bars', 'plan', 'tempo', 'offset'] as const),
      ...(['source', 'notes', 'soundFrom', 'disputed', 'open', 'tags'] as const),
    ],
    merges: {},
    asks: true,
    noun: 'take',
    title: (row) => row.name,
    words: { name: 'the name', notes: 'the notes', disputed: 'what you dispute' },
  },
  items: {
    fields: ['name', 'of', 'keys', 'tempo', 'pattern', 'note', 'tags', 'rests'],
    merges: {},
    asks: true,
    noun: 'practice item',
    title: (row) => row.name,
    words: { name: 'the name', keys: 'the keys', tempo: 'the tempo', rests: 'what is put off', note: 'the note' },
  },
  log: {
    fields: ['at', 'kind', 'itemId', 'key', 'tempo', 'grade', 'minutes', 'text', 'answered'],
    merges: {},
    asks: false,
    noun: 'entry of the log',
    title: (row) => logTitle(row),
    words: { grade: 'the grade', text: 'the words', minutes: 'the minutes' },
  },
  settings: {
    fields: ['name', 'value'],
    merges: {},
    asks: false,
    noun: 'setting',
    title: (row) => SETTINGS[row.name] ?? row.name,
    words: { value: 'the setting' },
  },
}

/** Of a route: the bars that changed, or whether it is in hand; null where something else of it did. */
const routeWords = (before: RouteRow, after: RouteRow): string | null => {
  const bars = barsChanged(before.steps, after.steps)
  if (before.name !== after.name) return null
  if (before.inHand !== after.inHand) return `whether ${after.name} is in hand`
  if (bars === null) return null
  return bars.from === bars.to ? `the route in bar ${bars.from}` : `the route in bars ${bars.from}–${bars.to}`
}

/** What differs between two states of a row, as it is told after undo: "the text of Slack Tide". */
export const changeWords = <K extends KindName>(name: K, before: RowOf[K], after: RowOf[K]): string => {
  const { fields, words, title } = KINDS[name]
  const of = title(after)
  if (name === 'settings') return of
  const route = name === 'routes' ? routeWords(before as RouteRow, after as RouteRow) : null
  if (route !== null) return route
  const changed = fields.filter((f) => JSON.stringify(before[f]) !== JSON.stringify(after[f]))
  const told = [...new Set(changed.flatMap((f) => words[f] ?? []))]
  return told.length === 0 ? of : `${told.join(', ')} of ${of}`
}
