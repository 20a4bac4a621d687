import { type Chord, isDominant, isMinorTarget } from '../chord/chord.ts'
import { canBeII, type Form, goalOf, type Hold, iiBefore, ticksOf, upTo } from './holds.ts'
import { ALL_KEYS, keyPath, kindOf, type OnPath, type PlainKey, sameKey, strangeness } from './keys.ts'

/** The key a cadence points to: of a ii and its V, and of the chord they reach. */
const pointsAt = (form: Form, hold: Hold): PlainKey | null => {
  const dominant = isDominant(hold.chord) ? hold : canBeII(hold.chord) ? goalOf(form, hold) : null
  if (!dominant || !isDominant(dominant.chord)) return null
  const [ii, goal] = [dominant === hold ? null : hold, goalOf(form, dominant)]
  if (ii && upTo(ii.chord, dominant.chord) !== 5) return null
  if (!goal || isDominant(goal.chord) || upTo(dominant.chord, goal.chord) !== 5) return null
  return { tonic: goal.chord.root.pc, mode: isMinorTarget(goal.chord) ? 'minor' : 'major' }
}

const onPath = (form: Form, bar: number): readonly OnPath[] =>
  form.holds.map((hold) => {
    const own = pointsAt(form, hold)
    const before = form.holds[hold.at - 1]
    const reached = before && isDominant(before.chord) && !own ? pointsAt(form, before) : null
    return { chord: hold.chord, weight: Math.min(4, Math.max(0.6, hold.ticks / bar)), points: own ?? reached }
  })

/** A chord that a tonic can be: a major chord, or a minor one that is no minor seventh. */
const canRest = (chord: Chord): boolean => kindOf(chord) === 'M' || kindOf(chord) === 'm'
const restKey = (chord: Chord): PlainKey => ({
  tonic: chord.root.pc,
  mode: kindOf(chord) === 'M' ? 'major' : 'minor',
})

/** A triad that goes on a fifth down is a V and not a place to rest. */
const isTriadThatLeads = (form: Form, hold: Hold): boolean => {
  const next = goalOf(form, hold)
  return hold.chord.quality.recipe.seventh === null && next !== null && upTo(hold.chord, next.chord) === 5
}

/** A dominant a fifth or (a substitute) a semitone above where it goes. */
const leadsTo = (dominant: Hold, goal: Hold): boolean =>
  isDominant(dominant.chord) && [5, 11].includes(upTo(dominant.chord, goal.chord))

const CADENCES_THAT_PAY = 2

/**
 * The keys a form has paid for: of each tonic reached by its V (a minor seventh only with its ii before that), and of
 * each V with its ii that comes twice. Source: theory page, section 7.
 */
const paidKeys = (form: Form): readonly PlainKey[] => {
  const paid: PlainKey[] = []
  const pointed = new Map<string, { key: PlainKey; times: number }>()
  for (const hold of form.holds) {
    if (!isDominant(hold.chord)) continue
    const [ii, goal] = [iiBefore(form, hold), goalOf(form, hold)]
    const arrives = goal !== null && leadsTo(hold, goal)
    const fullMinor = ii?.chord.family === 'half-diminished' && goal?.chord.family === 'minor'
    if (arrives && (canRest(goal.chord) || fullMinor))
      paid.push({ ...restKey(goal.chord), ...(fullMinor ? { mode: 'minor' } : {}) })
    if (!ii) continue
    const key: PlainKey = {
      tonic: (hold.chord.root.pc + 5) % 12,
      mode: ii.chord.family === 'half-diminished' ? 'minor' : 'major',
    }
    const name = `${key.tonic} ${key.mode}`
    pointed.set(name, { key, times: (pointed.get(name)?.times ?? 0) + 1 })
  }
  return [...paid, ...[...pointed.values()].filter((p) => p.times >= CADENCES_THAT_PAY).map((p) => p.key)]
}

const isTonicOf = (hold: Hold | undefined, key: PlainKey): boolean =>
  hold !== undefined &&
  hold.chord.root.pc === key.tonic &&
  (key.mode === 'major' ? ['M', '7', 'P'] : ['m', 'm7', 'P', 'ø']).includes(kindOf(hold.chord))

/** The last chord at rest: of a form that repeats, what stands before the dominants and their iis that lead round. */
const lastAtRest = ({ holds }: Form): Hold | undefined => {
  let at = holds.length - 1
  for (; at > 0; at--) {
    const { chord } = holds[at] as Hold
    const follows = holds[at + 1]
    const leads = isDominant(chord) || (canBeII(chord) && follows !== undefined && isDominant(follows.chord))
    if (!leads) break
  }
  return holds[at]
}

/** What the first and the last chord of a form add to the key they rest in, as shares of its length. */
const FIRST = 0.35
const LAST = 0.3
/** What a tonic the path never visits would have to overcome. */
const STRANGE_SHARE = 0.5

/** The key of the whole: where it is longest, the first chord and the last weighing most. */
const wholeKey = (form: Form, keys: readonly PlainKey[]): PlainKey => {
  const total = ticksOf(form.holds)
  const last = lastAtRest(form)
  const scores = ALL_KEYS.map((key) => {
    let score = 0
    for (const h of form.holds) {
      const share = h.ticks / total
      if (sameKey(keys[h.at] as PlainKey, key)) score += share
      score -= STRANGE_SHARE * share * Math.min(1, strangeness(h.chord, key))
    }
    return score + (isTonicOf(form.holds[0], key) ? FIRST : 0) + (isTonicOf(last, key) ? LAST : 0)
  })
  return ALL_KEYS[scores.indexOf(Math.max(...scores))] as PlainKey
}

/** A key the chart names, and the chord from which on it does. */
export interface NamedFrom {
  readonly from: number
  readonly key: PlainKey
}

/** The key of a whole form, and the key at each of its chords. */
export interface FormKeys {
  readonly whole: PlainKey
  readonly at: readonly PlainKey[]
}

/**
 * Local keys by the cheapest path over those the form has paid for; the key of the whole (as the chart names it, else
 * found) holds wherever no other was. A tonic of its own, reached by its V, is a local tonic however briefly, and its
 * ii and V go with it. `named` is the chart's own key, `later` are those it names after its beginning. Source: theory
 * page, section 7.
 */
export const formKeys = (
  form: Form,
  bar: number,
  named: PlainKey | null,
  later: readonly NamedFrom[],
  staysHome: ReadonlySet<number>,
): FormKeys => {
  const path = onPath(form, bar)
  const paid = paidKeys(form)
  const whole = named ?? wholeKey(form, keyPath(path, null, paid.length > 0 ? [...paid, ...restKeys(form)] : ALL_KEYS))
  const homes = [{ from: 0, key: whole }, ...later]
  const at = homes.flatMap(({ from, key }, i) => [
    ...keyPath(path.slice(from, homes[i + 1]?.from), key, [key, ...paid]),
  ])
  for (const hold of form.holds) {
    const before = form.holds[hold.at - 1]
    const own = restKey(hold.chord)
    // The form's first chord needs no V to be at rest.
    const reached = before === undefined || leadsTo(before, hold)
    if (!reached || staysHome.has(hold.at) || !canRest(hold.chord) || isTriadThatLeads(form, hold)) continue
    if (strangeness(hold.chord, at[hold.at] as PlainKey) < FOREIGN_FROM) continue
    for (const i of before ? cadenceBefore(form, before) : []) at[i] = own
    at[hold.at] = own
  }
  return { whole, at }
}

/** From here on a chord at rest is a stranger in a key. */
const FOREIGN_FROM = 0.5

const restKeys = (form: Form): readonly PlainKey[] =>
  [form.holds[0], lastAtRest(form)].flatMap((h) =>
    h === undefined ? [] : [{ tonic: h.chord.root.pc, mode: isMinorTarget(h.chord) ? 'minor' : 'major' } as const],
  )

/** The places of a dominant, of what is held with it on its root, and of its ii. */
const cadenceBefore = (form: Form, dominant: Hold): readonly number[] => {
  let from = dominant.at
  const on = (at: number): Chord | undefined => form.holds[at]?.chord
  for (let c = on(from - 1); c && isDominant(c) && c.root.pc === dominant.chord.root.pc; c = on(from - 1)) from--
  const ii = on(from - 1)
  if (ii && canBeII(ii) && [5, 11].includes(upTo(ii, dominant.chord))) from--
  return Array.from({ length: dominant.at - from + 1 }, (_, i) => from + i)
}
