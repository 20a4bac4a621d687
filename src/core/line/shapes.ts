import { MATERIALS, type Material, materialNamed } from '../material/material.ts'
import { generatedRoot, type Overlay, placeOn } from '../material/overlay.ts'
import { membersOf, rotate, sizeOf } from '../pitch/pcset.ts'
import { EMPTY_SET, type PcSet, type PitchClass, pitchClass } from '../pitch/units.ts'
import { PREFERRED_PENTATONIC } from '../reading/candidates.ts'
import { homeOverlay } from '../reading/home.ts'
import { TONIC_ABOVE } from '../reading/home-rows.ts'
import { BITS, RARE } from './bits.ts'
import type { HeardNote } from './heard.ts'

/** A set that a stretch of a line can be made of, under every name it has. */
export interface Shape {
  readonly set: PcSet
  readonly size: number
  readonly header: number
  /** The same for a shape in every key. */
  readonly kind: number
  readonly names: readonly { readonly material: Material; readonly pc: PitchClass }[]
  /** The place of each pitch class in the set's own order, -1 where it is not in it. */
  readonly order: Int8Array
  /** A shape that is seldom what is meant. */
  readonly rare: boolean
}

const kindOf = (set: PcSet): number => Math.min(...Array.from({ length: 12 }, (_, n) => rotate(set, n)))

const RARE_FROM = 1.5

const headerOf = (m: Material): number => BITS.root + BITS.family[m.family] + (RARE[m.name] ?? 0)

/** Every set of the catalogue in twelve keys. */
export const SHAPES: readonly Shape[] = (() => {
  const names = new Map<PcSet, { material: Material; pc: PitchClass }[]>()
  for (const material of MATERIALS)
    for (let pc = 0; pc < 12; pc++) {
      const set = rotate(material.set, pc)
      names.set(set, [...(names.get(set) ?? []), { material, pc: pitchClass(pc) }])
    }
  return [...names].map(([set, all]): Shape => {
    const sorted = [...all].sort((a, b) => headerOf(a.material) - headerOf(b.material))
    const order = new Int8Array(12).fill(-1)
    for (const [i, pc] of membersOf(set).entries()) order[pc] = i
    return {
      set,
      size: sizeOf(set),
      kind: kindOf(set),
      header: headerOf((sorted[0] as (typeof all)[number]).material),
      names: sorted,
      order,
      rare: (RARE[(sorted[0] as (typeof all)[number]).material.name] ?? 0) >= RARE_FROM,
    }
  })
})()

/** Shapes that hold a pitch class. */
export const HOLDING: readonly (readonly Shape[])[] = Array.from({ length: 12 }, (_, pc) =>
  SHAPES.filter((s) => (s.order[pc] ?? -1) >= 0),
)

/** The same of three and four notes only. */
export const ARPEGGIOS_HOLDING: readonly (readonly Shape[])[] = HOLDING.map((all) => all.filter((s) => s.size <= 4))

/** What a shape is to the chord that sounds. */
export const RELATIONS = ['foreign', 'chord', 'inside', 'home', 'offered', 'slip'] as const
export type Relation = (typeof RELATIONS)[number]

/** The sets at hand where a note sounds: the chord's own and the home scale. */
export interface AtHand {
  readonly own: PcSet
  readonly home: PcSet
  /** The tonic's blues scales over a blues: at home there as well. */
  readonly blues: readonly PcSet[]
  /** The other scales that are offered over the chord. */
  readonly offered: readonly PcSet[]
}
/** By how much a home scale is slipped. */
const SLIPS = [1, -1] as const
const NOTHING_AT_HAND: AtHand = { own: EMPTY_SET, home: EMPTY_SET, blues: [], offered: [] }
const BLUES_SCALES = (['minor blues', 'major blues'] as const).map(materialNamed)

/** The tonic of a blues at a note, as a pitch class; undefined anywhere else. */
const bluesTonic = (n: HeardNote): number | undefined => {
  const place = n.sounding?.place
  const up = place?.job ? TONIC_ABOVE[place.job.kind] : undefined
  return place && up !== undefined ? pitchClass(place.chord.root.pc + up) : undefined
}

export const atHandAt = (n: HeardNote): AtHand => {
  const place = n.sounding?.place
  if (!place) return NOTHING_AT_HAND
  const { chord, home } = place
  const tonic = bluesTonic(n)
  const blues = tonic === undefined ? [] : BLUES_SCALES.map((m) => rotate(m.set, tonic))
  const offered = home.others.map((s) => rotate(s.set, chord.root.pc))
  return {
    blues,
    offered,
    own: rotate(chord.quality.ownSet, chord.root.pc),
    home: rotate(home.first.set, chord.root.pc),
  }
}

/** What every set is to the chord that sounds, by the set: an index into `RELATIONS`. Where two fit, the later one here counts. */
export const relationsTo = ({ own, home, blues, offered }: AtHand): Uint8Array => {
  const table = new Uint8Array(4096)
  const put = (relation: Relation, sets: readonly PcSet[]): void => {
    for (const set of sets) table[set] = RELATIONS.indexOf(relation)
  }
  if (home !== EMPTY_SET)
    put(
      'slip',
      SLIPS.map((by) => rotate(home, by)),
    )
  put('offered', offered)
  put('inside', partsOf(own))
  put('home', [home, ...blues])
  put('chord', [own])
  return table
}

/** Every three notes or more of a set. */
const partsOf = (set: PcSet): readonly PcSet[] => {
  const parts: PcSet[] = []
  for (let part = set as number; part > 0; part = (part - 1) & set)
    if (sizeOf(part as PcSet) >= 3) parts.push(part as PcSet)
  return parts
}

const HEADERS: Readonly<Record<Exclude<Relation, 'foreign'>, number>> = {
  chord: BITS.ownChord,
  inside: BITS.insideChord,
  home: BITS.home,
  offered: BITS.offered,
  slip: BITS.slip,
}
const IN_ORDER: readonly number[] = RELATIONS.map((r) => (r === 'foreign' ? Number.NaN : HEADERS[r]))

/** What a shape's header costs by what it is to the chord, a place in `RELATIONS`: of what is foreign, its own. */
export const headerBits = (shape: Shape, related: number): number =>
  related === 0 ? shape.header : (IN_ORDER[related] as number)

/** The name a shape goes by: the home scale's own, the home scale slipped, a mode on the chord's root, else its likeliest next above that root. */
export const overlayOf = (shape: Shape, n: HeardNote): Overlay => {
  const place = n.sounding?.place
  const root = place?.chord.root.pc
  const home = place?.home.first
  const atHome = home && shape.names.find((x) => x.material === home.material && x.pc === home.root.pc)
  const slip = home && shape.names.find((x) => x.material === home.material)
  const isOwn =
    place !== undefined && place !== null && shape.set === rotate(place.chord.quality.ownSet, place.chord.root.pc)
  const own = shape.names.find((x) => x.pc === root && (isOwn || x.material.family === 'mode'))
  const tonic = bluesTonic(n)
  const blues = shape.names.find((x) => x.pc === tonic && x.material.family === 'blues')
  const minor = shape.names.find((x) => x.material.name === PREFERRED_PENTATONIC['as minor'])
  const likeliest = (minor ?? (shape.names[0] as (typeof shape.names)[number])).material
  const up = (pc: number): number => (pc - (root ?? 0) + 12) % 12
  const [nearest] = shape.names.filter((x) => x.material === likeliest).sort((a, b) => up(a.pc) - up(b.pc))
  const { material, pc } = atHome ?? blues ?? slip ?? own ?? (nearest as (typeof shape.names)[number])
  // A mode named for the chord stands on the chord's own root, however that is spelled.
  if (place && pc === root && material.family !== 'triad') return placeOn(place.chord.root, material)
  return placeOn(generatedRoot(pc, home ? homeOverlay(home).notes : [], material), material)
}

/** Shapes that are not at hand. */
export const FOREIGN: ReadonlySet<Relation> = new Set(['foreign', 'slip', 'offered'])
