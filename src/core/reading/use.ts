import { isDominant } from '../chord/chord.ts'
import { MATERIALS, type Material, materialNamed } from '../material/material.ts'
import { generatedRoot, pairOf, placeOn } from '../material/overlay.ts'
import { rotate, shared, union } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
import { type Candidate, once } from './candidates.ts'
import { type Classic, classicsOver } from './classics.ts'
import { homeOverlay } from './home.ts'
import { isOfMinor } from './home-rows.ts'
import type { Measured } from './lens.ts'
import { FAMILY_RARITY, SHAPE_RARITY } from './rarity.ts'
import { readOver } from './read.ts'
import type { Place } from './role.ts'
import type { Weights } from './weights.ts'

/** How far out players like to be, by what the chord does. Source: theory page, section 5, use. */
const WISHES: Readonly<Record<string, number>> = {
  tonic: 12,
  subdominant: 12,
  ii: 18,
  'ii of substitute V': 18,
  'chromatic ii': 18,
  modal: 18,
  borrowed: 18,
  V: 38,
  'deceptive V': 38,
  'delayed V': 38,
  'substitute V': 38,
  'backdoor V': 38,
  'chromatic V': 38,
  'blues V': 38,
  'static dominant': 25,
  'blues I': 30,
  'blues IV': 30,
}
const SUSPENDED = 15
const OTHERWISE = 18
/** Over a symbol with alterations of its own, and over the V of a minor chord, this much more than the home scale. */
const BEYOND_HOME = 8

const altersItself = ({ chord }: Place): boolean => {
  const { altered, fifth, tensions } = chord.quality.recipe
  const bends = altered || fifth === 'b5' || fifth === '#5' || tensions.some((t) => /^[b#]/.test(t))
  return bends && isDominant(chord)
}

/** How far out an overlay is wished over a chord where it stands, 0..100. */
export const wishedFade = (place: Place, weights: Weights): number => {
  if (altersItself(place) || isOfMinor(place.job) || place.chord.family === 'diminished')
    return readOver(homeOverlay(place.home.first), place, weights).fade + BEYOND_HOME
  if (place.chord.family === 'suspended') return SUSPENDED
  if (place.job === null) return isDominant(place.chord) ? 38 : place.chord.family === 'major' ? 12 : OTHERWISE
  return WISHES[place.job.kind] ?? OTHERWISE
}

const PER_FADE = 1.2
const PER_LANDING = 0.3
const A_FAULT = 25
const A_SUSPENSION = 8
const A_CLASSIC = 12

/** Two triads that share a note are rather one larger chord. */
const A_SHARED_NOTE = 8

const rare: ReadonlyMap<Material | null, number> = new Map(
  MATERIALS.flatMap((m) => {
    const rarity = SHAPE_RARITY[m.name]
    return rarity === undefined ? [] : [[m, rarity]]
  }),
)

/** A pair is as rare as its triads; else a shape goes before its family. */
export const rarityOf = ({ family, material, shape }: Candidate): number => {
  if (!shape) return rare.get(material) ?? FAMILY_RARITY[family]
  const triads = (rare.get(shape.first) ?? 0) + (rare.get(shape.second) ?? 0)
  return FAMILY_RARITY.pair + triads + (shape.exclusive ? 0 : A_SHARED_NOTE)
}

/**
 * How likely a teacher would show an overlay here, higher first, to the thousandth: all it is made of is whole in them.
 * A classic is no rarity where it is one, and what passes in it is known to pass.
 */
export const scoreOfUse = (c: Candidate, m: Measured, wish: number, classic: boolean): number => {
  const score =
    100 -
    PER_FADE * Math.abs(m.fade - wish) -
    (m.landing === null ? 0 : (PER_LANDING * (100 - m.landing) * m.fade) / 50) -
    A_FAULT * m.wrong +
    (classic ? A_CLASSIC : -A_SUSPENSION * m.suspensions - rarityOf(c))
  return Math.round(1000 * score) / 1000
}

/** A row of the table of classics, laid over a chord. */
export interface LaidClassic extends Candidate {
  readonly because: string
}

const laid = (row: Classic, place: Place): LaidClassic => {
  const { chord } = place
  const parts = row.lay.map(([name, up]) => ({ material: materialNamed(name), pc: pitchClass(chord.root.pc + up) }))
  const [first, second] = parts as [(typeof parts)[number], (typeof parts)[number] | undefined]
  const set = parts.reduce((all, p) => union(all, rotate(p.material.set, p.pc)), 0 as PcSet)
  const spelled = once(() => {
    const { notes } = homeOverlay(place.home.first)
    const [a, b] = parts.map((p) => placeOn(generatedRoot(p.pc, notes, p.material), p.material))
    if (!a) throw new Error('a classic has a material')
    return b ? pairOf(a, b) : a
  })
  const exclusive = second
    ? shared(rotate(first.material.set, first.pc), rotate(second.material.set, second.pc)) === 0
    : true
  return {
    family: second ? 'pair' : first.material.family,
    material: second ? null : first.material,
    set,
    root: first.pc,
    passing: second || first.material.passing === null ? null : (first.pc + first.material.passing) % 12,
    overlay: spelled,
    also: 0,
    shape: second
      ? { first: first.material, second: second.material, apart: pitchClass(second.pc - first.pc), exclusive }
      : null,
    because: row.because,
  }
}

/** The classics over a chord where it stands, each with its sentence; of one set the first row counts. */
export const classicCandidates = (place: Place): readonly LaidClassic[] => {
  const all = classicsOver(place).map((row) => laid(row, place))
  return all.filter((c, i) => all.findIndex((d) => sameShape(c, d)) === i)
}

/** Whether two candidates are the same notes; pairs only where they are the same triads. */
export const sameShape = (a: Candidate, b: Candidate): boolean =>
  a.set === b.set && (a.family === 'pair') === (b.family === 'pair')
