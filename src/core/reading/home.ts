import { type Job, jobName } from '../chart/job.ts'
import type { Chord } from '../chord/chord.ts'
import { FAMILIES } from '../material/catalogue.ts'
import { type Material, materialNamed, nameOn } from '../material/material.ts'
import { type Overlay, placeOn } from '../material/overlay.ts'
import { type Note, noteAbove } from '../pitch/note.ts'
import { holds, rotate, shared, union } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
import { HOME_ROWS, type HomeCase, type HomeRow, restingHome, SLASH_HOMES } from './home-rows.ts'
import type { School } from './school.ts'

/** A scale on a root, not yet spelled out: what the hot path needs. `set` is relative to the chord's root. */
export interface HomeScale {
  readonly material: Material
  readonly root: Note
  readonly set: PcSet
}

/** What is inside over one chord. */
export interface Home {
  readonly first: HomeScale
  readonly others: readonly HomeScale[]
  /** The first scale's notes with the chord's own and stated ones, relative to the root: what counts as in. */
  readonly inside: PcSet
  readonly because: string
}

/** Letters up to a fourth and a fifth, the only roots beside the chord's own that its rows name. */
const LETTERS: Readonly<Record<number, number>> = { 0: 0, 5: 3, 7: 4 }

const onChord = (chord: Chord, material: Material, up: number): HomeScale => ({
  material,
  root: up === 0 ? chord.root : noteAbove(chord.root, LETTERS[up] ?? 0, up),
  set: up === 0 ? material.set : rotate(material.set, up),
})

/** Whether a scale keeps everything the symbol says: its notes are there, and (strictly) what it denies is not. */
const keepsSymbol = (chord: Chord, set: PcSet, strictly: boolean): boolean =>
  holds(set, union(ownTones(chord), chord.quality.statedSet)) &&
  (!strictly || shared(set, chord.quality.deniedSet) === 0)

/** The tones a scale must hold: not a foreign bass, nor a natural fifth, which no symbol states. */
const ownTones = (chord: Chord): PcSet => {
  const bass = chord.bass === chord.root ? 0 : 1 << pitchClass(chord.bass.pc - chord.root.pc)
  const fifth = chord.quality.recipe.fifth === '5' ? 1 << 7 : 0
  return (chord.ownSet & ~bass & ~fifth) as PcSet
}

/** What the symbol states comes before function and school: a scale that contradicts it gives way to one that does not. */
const symbolFirst = (chord: Chord, listed: readonly HomeScale[]): readonly HomeScale[] => {
  for (const strictly of [true, false]) {
    const fitting = listed.findIndex((s) => keepsSymbol(chord, s.set, strictly))
    if (fitting === 0) return listed
    if (fitting > 0) return [listed[fitting] as HomeScale, ...listed.filter((_, i) => i !== fitting)]
    for (const [name] of FAMILIES.mode) {
      const mode = materialNamed(name)
      if (keepsSymbol(chord, mode.set, strictly)) return [onChord(chord, mode, 0), ...listed]
    }
  }
  return listed
}

const leadsTo = (chord: Chord, next: Chord | null): readonly HomeScale[] => {
  if (next === null) return []
  const material = materialNamed('harmonic minor')
  return [{ material, root: next.root, set: rotate(material.set, next.root.pc - chord.root.pc) }]
}

/** A scale's notes with the chord's own and stated ones. */
export const insideOf = (chord: Chord, scale: PcSet): PcSet =>
  union(scale, union(chord.ownSet, chord.quality.statedSet))

/**
 * The home scale of a chord: by symbol, then function, then school; chord tones always belong. A dominant asked about
 * alone is taken as resolving to major. Source: theory page, section 4.
 */
export const homeOf = (chord: Chord, next: Chord | null, job: Job | null, school: School): Home => {
  const asked: HomeCase = { chord, job, school }
  const usual = HOME_ROWS[chord.family].find((r) => r.when(asked)) as HomeRow
  const row = restingHome(job) ?? (chord.slash ? SLASH_HOMES[chord.slash] : null) ?? usual
  const listed = row.scales(asked).map((s) => onChord(chord, s.material, s.up))
  const all = symbolFirst(chord, chord.family === 'diminished' ? [...listed, ...leadsTo(chord, next)] : listed)
  const first = all[0]
  if (!first) throw new Error('a row of the home-scale table is empty')
  return { first, others: all.slice(1), inside: insideOf(chord, first.set), because: row.because }
}

export const homeName = (scale: HomeScale): string => nameOn(scale.root.name, scale.material)
export const homeOverlay = (scale: HomeScale): Overlay => placeOn(scale.root, scale.material)

/** Why this home scale, in a sentence (ASCII names). */
export const homeReason = (chord: Chord, home: Home, job: Job | null): string =>
  `${chord.symbol}${job === null ? '' : ` (${jobName(job)})`}: ${home.because}, so ${homeName(home.first)} is home.`
