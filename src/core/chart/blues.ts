import { type Chord, isDominant } from '../chord/chord.ts'
import { pitchClass } from '../pitch/units.ts'
import type { Chart } from './chart.ts'
import type { Judged } from './dominants.ts'
import { type Form, goalOf, type Hold, iiBefore } from './holds.ts'
import type { PlainKey } from './keys.ts'

/** Where a blues of so many bars has its IV and comes back to its I, by bars from 1; any of the IVs will do. */
interface BluesForm {
  readonly bars: number
  readonly four: readonly number[]
  readonly back: number
}

/** Source: theory page, section 7; the usual shapes of the form. */
const FORMS: readonly BluesForm[] = [
  { bars: 12, four: [2, 5], back: 7 },
  { bars: 8, four: [2, 3, 4], back: 5 },
  { bars: 8, four: [2, 3], back: 7 },
  { bars: 16, four: [2, 5], back: 7 },
  { bars: 16, four: [9], back: 11 },
  { bars: 24, four: [3, 9], back: 13 },
]
const CHORUS = 12

type Bars = readonly (readonly Chord[])[]

const barsOf = (form: Form, chart: Chart): Bars => {
  const bars = new Map<number, Chord[]>(chart.bars.filter((b) => b.number > 0).map((b) => [b.number, []]))
  for (const h of form.holds)
    for (const s of h.spots) {
      const bar = bars.get(s.spot.bar)
      if (bar) bar.push(h.chord)
    }
  return [...bars.values()]
}

const isOn = (chord: Chord | undefined, root: number): boolean => chord !== undefined && chord.root.pc === root % 12

/** A I of a blues: a dominant, a sixth, a plain triad, or minor; a major seventh rests elsewhere. */
const canBeOne = ({ family, quality: { recipe } }: Chord): boolean =>
  family === 'dominant' ||
  family === 'minor' ||
  (family === 'major' && (recipe.seventh === '6' || recipe.seventh === null))

/**
 * What tells a blues from any other form of its length: in major a seventh on its I (of twelve bars and more anywhere,
 * else at once) or on its IV, in minor a dominant at its end.
 */
const soundsBlue = (bars: Bars, tonic: number, isMinor: boolean): boolean => {
  const sevenths = (among: Bars, on: number): boolean =>
    among.flat().some((c) => c.family === 'dominant' && isOn(c, on))
  if (!isMinor) return sevenths(bars, tonic + 5) || sevenths(bars.length < CHORUS ? bars.slice(0, 1) : bars, tonic)
  return bars
    .slice(Math.floor(bars.length / 2))
    .flat()
    .some((c) => isDominant(c) && (isOn(c, tonic + 7) || isOn(c, tonic + 8)))
}

const fits = (bars: Bars, tonic: number, isMinor: boolean, shape: BluesForm): boolean => {
  const at = (bar: number): readonly Chord[] => bars[bar - 1] ?? []
  const four = (bar: number): boolean =>
    isOn(at(bar)[0], tonic + 5) &&
    (isDominant(at(bar)[0] as Chord) || at(bar)[0]?.family === (isMinor ? 'minor' : 'major'))
  const three = at(shape.back)[0]
  const backOn = isOn(three, tonic) || (three?.family === 'minor' && isOn(three, tonic + 4) && four(5))
  return bars.length === shape.bars && shape.four.some(four) && backOn
}

/** Sevenths that swing between the I, the IV and perhaps the V, from the I and back to it. */
const swings = (bars: Bars, tonic: number): boolean => {
  const all = bars.flat()
  const onlyThese = all.every((c) => c.family === 'dominant' && [0, 5, 7].some((up) => isOn(c, tonic + up)))
  const ones = all.filter((c, i) => isOn(c, tonic) && !isOn(all[i - 1], tonic)).length
  return onlyThese && ones > 1 && all.some((c) => isOn(c, tonic + 5))
}

/** The key of a form that is a blues, told by where its I and its IV stand; null for any other. Source: theory page, section 7. */
export const bluesKey = (form: Form, chart: Chart): PlainKey | null => {
  const all = barsOf(form, chart)
  const twice = all.length === 2 * CHORUS && all[CHORUS]?.[0]?.symbol === all[0]?.[0]?.symbol
  const bars =
    twice && fits(all.slice(0, CHORUS), all[0]?.[0]?.root.pc ?? 0, false, FORMS[0] as BluesForm)
      ? all.slice(0, CHORUS)
      : all
  const first = bars[0]?.[0]
  if (!first || !canBeOne(first)) return null
  const [tonic, isMinor] = [first.root.pc, first.family === 'minor']
  const isBlues = FORMS.some((f) => fits(bars, tonic, isMinor, f)) && soundsBlue(bars, tonic, isMinor)
  return isBlues || swings(bars, tonic) ? { tonic, mode: isMinor ? 'minor' : 'major' } : null
}

const PLACES = { 0: 'blues I', 5: 'blues IV', 7: 'blues V' } as const
const DEGREES = { 'blues I': '1', 'blues IV': '4', 'blues V': '5' } as const

/** A dominant whose own tensions are altered (the blue #9 apart) leads on, also where it stands on the I before the IV. */
const isAltered = ({ quality: { recipe } }: Chord): boolean =>
  recipe.altered || ['b5', '#5'].includes(recipe.fifth ?? '') || recipe.tensions.some((t) => /^(b9|b13)$/.test(t))

/** What a I, IV or V does in a blues; null for what decorates the form and keeps its own name. */
export const bluesJobAt = (form: Form, hold: Hold, key: PlainKey): Judged | null => {
  const kind = PLACES[pitchClass(hold.chord.root.pc - key.tonic) as keyof typeof PLACES]
  const { family } = hold.chord
  if (!kind || family === 'diminished' || family === 'half-diminished') return null
  if (!isDominant(hold.chord) && (kind === 'blues V' || family !== key.mode)) return null
  if (isDominant(hold.chord) && iiBefore(form, hold)) return null
  const next = goalOf(form, hold)
  const leadsToFour = kind === 'blues I' && next !== null && isOn(next.chord, key.tonic + 5)
  if (leadsToFour && isDominant(hold.chord) && (key.mode === 'minor' || isAltered(hold.chord))) return null
  const resolves = kind === 'blues V' && next !== null && isOn(next.chord, key.tonic)
  return { job: { kind, on: DEGREES[kind], mode: key.mode }, resolves }
}
