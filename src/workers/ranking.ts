import {
  type Candidate,
  candidatesOver,
  type Direction,
  type Escape,
  escapesFrom,
  FAMILY_NAMES,
  type FamilyName,
  type Job,
  namedTowards,
  type OverlayFilter,
  type PentatonicNaming,
  type Place,
  placeWithHome,
  rankCandidates,
  readChord,
  type School,
  type Weights,
  withoutDoubles,
} from '../core/index.ts'

/** A chord where it stands, in words that can be sent. */
export interface SpotWords {
  readonly chord: string
  readonly next: string | null
  readonly job: Job | null
  readonly home: string | null
  readonly school: School
}

export interface RankingAsk {
  readonly spot: SpotWords
  readonly filter: OverlayFilter
  readonly weights: Weights
  readonly naming: PentatonicNaming
  readonly direction: Direction
}

/** Ranked overlays, column by column: thousands cross from the worker at each key press. `landings` -1 where none. */
export interface Ranking {
  readonly names: readonly string[]
  readonly families: readonly FamilyName[]
  readonly fades: Uint8Array
  readonly landings: Int8Array
  readonly also: Uint8Array
  /** The sentences of those the table of classics knows, by their place; asked by use only. */
  readonly classics: Readonly<Record<number, string>>
  /** Of how many overlays these were chosen. */
  readonly of: number
  /** Where nothing matches: what to drop. */
  readonly escapes: readonly Escape[]
}

const placeFrom = ({ chord, next, job, home, school }: SpotWords): Place => {
  const [over, to] = [readChord(chord), next === null ? null : readChord(next)]
  if (!over.ok || (to && !to.ok)) throw new Error(`a printed chord does not read: ${chord}, ${next}`)
  return placeWithHome(over.value, to ? to.value : null, school, job, home)
}

interface Named extends Candidate {
  readonly name: () => string
}

const namedCandidates = (place: Place, direction: Direction): readonly Named[] =>
  candidatesOver(place, FAMILY_NAMES).map((c) => {
    let name: string | undefined
    return {
      ...c,
      name: () => {
        name ??= namedTowards(c.overlay(), direction).name
        return name
      },
    }
  })

/** What does not change while filters are turned: the place and its candidates, each told once. */
let spotted: { key: string; place: Place; all: readonly Named[] } | null = null
let told: { key: string; all: readonly Named[] } | null = null

const candidatesFor = ({ spot, naming, direction }: RankingAsk): { place: Place; all: readonly Named[] } => {
  const key = JSON.stringify([spot, direction])
  if (spotted?.key !== key) {
    const place = placeFrom(spot)
    spotted = { key, place, all: namedCandidates(place, direction) }
  }
  if (told?.key !== key + naming) told = { key: key + naming, all: withoutDoubles(spotted.all, naming) }
  return { place: spotted.place, all: told.all }
}

/** Everything the catalogue, the pairs and the slips offer over a chord, chosen and ranked. */
export const ranking = (ask: RankingAsk): Ranking => {
  const { place, all } = candidatesFor(ask)
  const wanted = all.filter((c) => ask.filter.families.includes(c.family))
  const ranked = rankCandidates(wanted, place, ask.filter, ask.weights, ask.naming)
  return {
    names: ranked.map((r) => r.candidate.name()),
    families: ranked.map((r) => r.candidate.family),
    fades: Uint8Array.from(ranked, (r) => r.measured.fade),
    landings: Int8Array.from(ranked, (r) => r.measured.landing ?? -1),
    also: Uint8Array.from(ranked, (r) => r.candidate.also),
    classics: Object.fromEntries(ranked.flatMap((r, i) => (r.classic ? [[i, r.classic]] : []))),
    of: all.length,
    escapes: ranked.length > 0 ? [] : escapesFrom(all, place, ask.filter, ask.weights),
  }
}
