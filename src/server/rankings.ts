import {
  ANYTHING,
  type Chord,
  type Derivation,
  degree,
  derivePairs,
  type Group,
  type Omission,
  type Overlay,
  type OverlayFilter,
  type PairFilter,
  type PcSet,
  placeOf,
  type Ranked,
  rankOverlays,
  rankPairs,
  readOver,
  rotate,
  type School,
  setOf,
  type Weights,
} from '../core/index.ts'
import { readingAnswer } from './answers.ts'
import { fieldProblem } from './problems.ts'

/** What every computation may be told, as values. */
export interface Judges {
  readonly school: School
  readonly weights: Weights
}
export interface Page {
  readonly limit: number
  readonly offset: number
}

/** Degrees above a chord's root as pitch classes. */
export const degreesOn = (chord: Chord, names: readonly string[]): PcSet =>
  rotate(setOf(names.map((n) => degree(n).semitones)), chord.root.pc)

const pageOf = (
  ranked: readonly Ranked[],
  chord: Chord,
  next: Chord | null,
  { school, weights }: Judges,
  page: Page,
) => {
  const place = placeOf(chord, next, school)
  return {
    total: ranked.length,
    items: ranked.slice(page.offset, page.offset + page.limit).map((r) => {
      const { notes, ...rest } = readingAnswer(readOver(r.overlay(), place, weights), chord, null, weights)
      return {
        ...rest,
        notes: notes.map(({ exits: _, ...note }) => note),
        use: Math.round(r.use),
        ...(r.classic ? { classic: r.classic } : {}),
      }
    }),
  }
}

/** Ranked overlays in the interface's shape: readings without exits. */
export const overlaysAnswer = (chord: Chord, next: Chord | null, filter: OverlayFilter, judges: Judges, page: Page) =>
  pageOf(rankOverlays(placeOf(chord, next, judges.school), filter, judges.weights), chord, next, judges, page)

/** Ranked pairs, likewise. */
export const pairsAnswer = (chord: Chord, next: Chord | null, filter: PairFilter, judges: Judges, page: Page) =>
  pageOf(rankPairs(placeOf(chord, next, judges.school), filter, judges.weights), chord, next, judges, page)

export const ANY_PAIR: PairFilter = { ...ANYTHING, sort: 'fade', qualities: null, distance: null, exclusive: null }

const QUALITY_NAMES: Readonly<Record<string, string>> = {
  major: '',
  minor: 'm',
  diminished: 'dim',
  augmented: '+',
  lydian: 'lydian triad',
  phrygian: 'phrygian triad',
  'major b5': 'major b5 triad',
  sus4: 'sus4',
  sus2: 'sus2',
}

/** `major,minor` as the names of two triads' materials, or null where nothing is asked. */
export const qualitiesFrom = (text: string): readonly [string, string] | null => {
  if (text === '') return null
  const read = text.split(',').map((word) => {
    const name = QUALITY_NAMES[word.trim().toLowerCase()]
    if (name !== undefined) return name
    const message = `${word} is not a triad's quality: ${Object.keys(QUALITY_NAMES).join(', ')}`
    throw fieldProblem('qualities', message, text, Object.keys(QUALITY_NAMES))
  })
  const [first, second] = read
  if (first === undefined || second === undefined || read.length !== 2) {
    const message = 'two qualities are needed, such as major,minor'
    throw fieldProblem('qualities', message, text, Object.keys(QUALITY_NAMES))
  }
  return [first, second]
}

const groupAnswer = (g: Group) => ({
  notes: g.notes.map((n) => n.name),
  triad: g.triad?.name ?? null,
  inversion: g.inversion,
})
const leftNames = ({ left }: Omission): string => left.map((n) => n.name).join(', ')
const omissionAnswer = (o: Omission) => ({
  degree: o.degree,
  note: leftNames(o),
  six: o.six.map((n) => n.name),
  groups: o.groups.map(groupAnswer),
  fade: o.fade,
})

/** A derivation step by step, in the interface's shape. */
export const derivationAnswer = ({ scale, dropped, six, groups, otherSplits, all }: Derivation) => ({
  scale: scale.name,
  notes: scale.notes.map((n) => n.name),
  dropped: dropped && { degree: dropped.omission.degree, note: leftNames(dropped.omission), why: dropped.why },
  six: six.map((n) => n.name),
  groups: groups.map(groupAnswer),
  otherSplits: otherSplits.map((pair) => pair.map((t) => t.name)),
  allOmissions: all.map(omissionAnswer),
})

export const deriveOver = (
  scale: Overlay,
  omit: string | null,
  chord: Chord,
  next: Chord | null,
  { school, weights }: Judges,
) => derivePairs(scale, omit, placeOf(chord, next, school), weights)
