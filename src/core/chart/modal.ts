import { type Chord, isDominant, isMinorTarget } from '../chord/chord.ts'
import type { MaterialName } from '../material/catalogue.ts'
import { materialNamed } from '../material/material.ts'
import { holds as holdsSet, rotate, union } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import { degreeIn } from './dominants.ts'
import { type Form, goalOf, type Hold, ticksOf, upTo } from './holds.ts'
import type { Job } from './job.ts'
import { kindOf, type PlainKey, sameKey } from './keys.ts'

/** A stretch that stays in one place, and the chord it rests on longest. */
export interface ModalStretch {
  readonly holds: readonly Hold[]
  readonly rest: Hold
}

export const MODAL_FROM_BARS = 4
/** A vamp swings between so many chords at most. */
const VAMP_CHORDS = 3

const isOpen = (chord: Chord): boolean =>
  chord.family === 'suspended' || chord.family === 'power' || chord.quality.recipe.tensions.includes('#11')

/** The chord that is rested on longest, of all its turns together. */
export const longestOf = (holds: readonly Hold[]): Hold | undefined => {
  const ticks = new Map<string, number>()
  for (const h of holds) ticks.set(h.chord.symbol, (ticks.get(h.chord.symbol) ?? 0) + h.ticks)
  return [...holds].sort((a, b) => (ticks.get(b.chord.symbol) ?? 0) - (ticks.get(a.chord.symbol) ?? 0))[0]
}

/** Chords that a major key has beside its I at rest: swinging to them is no vamp but the key itself. */
const AT_HOME = new Set(['4M', '2m7', '2m', '6m7', '6m', '3m7', '3m'])

/** What leads on, or would: no stretch that holds one stays. A suspended chord leads where it falls a fifth. */
const leads = (form: Form, hold: Hold): boolean => {
  const next = hold.chord.family === 'suspended' ? goalOf(form, hold) : null
  const falls = next !== null && upTo(hold.chord, next.chord) === 5
  return falls || ['dominant', 'diminished', 'half-diminished'].includes(hold.chord.family)
}

/** Two or three chords that swing: the one rested on longest, and others its key does not hold as its own. */
const isVamp = (holds: readonly Hold[], rest: Hold): boolean => {
  const others = holds.filter((h) => h.chord.symbol !== rest.chord.symbol)
  const key: PlainKey = { tonic: rest.chord.root.pc, mode: rest.chord.family === 'minor' ? 'minor' : 'major' }
  const chords = new Set(holds.map((h) => h.chord.symbol)).size
  return (
    chords > 1 &&
    chords <= VAMP_CHORDS &&
    rest.chord.family !== 'dominant' &&
    others.some(({ chord }) => !AT_HOME.has(`${degreeIn(key, chord)}${kindOf(chord)}`))
  )
}

/** A stretch stays although so small a share of it leads on: a suspension that turns round at the end. */
const LEADING_SHARE = 0.1

/**
 * Stretches of one key, of four bars or more, in which next to nothing leads: places to stay in. They rest on a minor
 * seventh or an open chord, or swing between two or three chords. Source: theory page, sections 4 and 7.
 */
export const modalStretches = (form: Form, keys: readonly PlainKey[], bar: number): readonly ModalStretch[] => {
  const stretches: ModalStretch[] = []
  for (let from = 0; from < form.holds.length; ) {
    let to = from
    while (to < form.holds.length && sameKey(keys[to] as PlainKey, keys[from] as PlainKey)) to++
    const inside = form.holds.slice(from, to)
    const staying = inside.filter((h) => !leads(form, h))
    const share = 1 - ticksOf(staying) / ticksOf(inside)
    const rest = longestOf(staying)
    const stays = rest && (kindOf(rest.chord) === 'm7' || isOpen(rest.chord) || isVamp(staying, rest))
    if (stays && share <= LEADING_SHARE && ticksOf(staying) >= MODAL_FROM_BARS * bar)
      stretches.push(...centresIn(staying, bar))
    from = to
  }
  return stretches
}

/** A run of chords that the scale of rest does not hold, of two bars or more, has a centre of its own. */
const CENTRE_FROM_BARS = 2

const centresIn = (holds: readonly Hold[], bar: number): readonly ModalStretch[] => {
  const rest = longestOf(holds)
  if (!rest) return []
  const scale = restingScale(holds, rest, bar)
  const own: Hold[] = []
  const others: ModalStretch[] = []
  for (let from = 0; from < holds.length; ) {
    let to = from
    while (to < holds.length && !(scale && within(scale, rest, holds[to] as Hold))) to++
    const run = holds.slice(from, to)
    if (run.length > 0 && run.length < holds.length && ticksOf(run) >= CENTRE_FROM_BARS * bar)
      others.push(...centresIn(run, bar))
    else own.push(...run)
    if (to < holds.length) own.push(holds[to] as Hold)
    from = to + 1
  }
  return [{ holds: own, rest }, ...others]
}

/** Scales a stretch may rest in, by the chord it rests on, the plainest first. */
const RESTING: Readonly<Partial<Record<Chord['family'], readonly MaterialName[]>>> = {
  minor: ['dorian', 'aeolian', 'phrygian', 'melodic minor'],
  major: ['ionian', 'lydian', 'mixolydian'],
  suspended: ['mixolydian', 'dorian'],
}

/** Whether the scale of the chord that is rested on holds another chord. */
const within = (scale: MaterialName, rest: Hold, { chord }: Hold): boolean => {
  const tones = rotate(union(chord.ownSet, chord.quality.statedSet), chord.root.pc - rest.chord.root.pc)
  return holdsSet(materialNamed(scale).set, tones)
}

/** Beside a chord rested on so many times longer, one that is held by itself is a place of its own and no part of a vamp. */
const ASIDE = 2
/** However long the other is, a chord held for so many bars is a place of its own. */
const PLACE_FROM_BARS = 4

/** Of the scales that fit the chord rested on, the one that holds those it swings to longest; none where none fits it. */
const restingScale = (holds: readonly Hold[], rest: Hold, bar: number): MaterialName | undefined => {
  const fitting = (RESTING[rest.chord.family] ?? []).filter((m) => within(m, rest, rest))
  const allOf = (symbol: string): number => ticksOf(holds.filter((h) => h.chord.symbol === symbol))
  const swings = holds.filter(
    (h) =>
      h.ticks < CENTRE_FROM_BARS * bar ||
      (h.ticks < PLACE_FROM_BARS * bar && allOf(h.chord.symbol) * ASIDE >= allOf(rest.chord.symbol)),
  )
  const held = (m: MaterialName): number => ticksOf(swings.filter((h) => within(m, rest, h)))
  return [...fitting].sort((a, b) => held(b) - held(a))[0]
}

/**
 * The jobs of a modal stretch: each chord takes the scale of the one that is rested on longest, where that scale holds
 * it; a chord it does not hold keeps its own.
 */
export const modalJobs = ({ holds, rest }: ModalStretch, bar: number): ReadonlyMap<number, Job> => {
  const scale = restingScale(holds, rest, bar)
  return new Map(
    holds.map((h): [number, Job] => {
      const up = pitchClass(rest.chord.root.pc - h.chord.root.pc)
      return [h.at, { kind: 'modal', ...(scale && within(scale, rest, h) ? { rests: { scale, up } } : {}) }]
    }),
  )
}

/** The key a stretch is in: what it rests on. */
export const restsIn = ({ rest }: ModalStretch): PlainKey => ({
  tonic: rest.chord.root.pc,
  mode: isMinorTarget(rest.chord) ? 'minor' : 'major',
})

/** A dominant that is held or comes again for more than half a form, and leads nowhere, is what it rests on. */
export const dominantVamp = (form: Form): PlainKey | null => {
  const staying = form.holds.filter(({ chord }) => isDominant(chord))
  const roots = new Set(staying.map((h) => h.chord.root.pc))
  const [first] = staying
  const vamps = first && roots.size === 1 && ticksOf(staying) * 2 > ticksOf(form.holds)
  const falls = staying.some((h) => {
    const next = goalOf(form, h)
    return next !== null && [5, 11].includes(upTo(h.chord, next.chord))
  })
  return vamps && !falls ? { tonic: first.chord.root.pc, mode: 'major' } : null
}
