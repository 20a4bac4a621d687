import type { Chord } from '../chord/chord.ts'
import { pitchClass } from '../pitch/units.ts'

/** One of the 24 keys, by pitch class; its name follows from where it stands. */
export interface PlainKey {
  readonly tonic: number
  readonly mode: 'major' | 'minor'
}

export const ALL_KEYS: readonly PlainKey[] = (['major', 'minor'] as const).flatMap((mode) =>
  Array.from({ length: 12 }, (_, tonic) => ({ tonic, mode })),
)

export type Kind = 'M' | 'm' | 'm7' | '7' | 'ø' | 'o' | '+' | 'P'

/** What a chord is to a key: rests in major, in minor, a minor seventh, a dominant, half-diminished, diminished … */
export const kindOf = (chord: Chord): Kind => {
  const { seventh } = chord.quality.recipe
  switch (chord.family) {
    case 'major':
      return 'M'
    case 'minor':
      return seventh === 'b7' ? 'm7' : 'm'
    case 'dominant':
    case 'suspended':
      return '7'
    case 'half-diminished':
      return 'ø'
    case 'diminished':
      return 'o'
    case 'augmented':
      return '+'
    case 'power':
      return 'P'
  }
}

/** How strange a chord is in a key: 0 is its own, by semitones above the tonic. What is not listed is foreign. */
const FOREIGN = 2
const row = (text: string): Readonly<Record<string, number>> =>
  Object.fromEntries(text.split(' ').map((w) => [w.split('=')[0], Number(w.split('=')[1])]))

const STRANGE: Readonly<Record<PlainKey['mode'], Readonly<Record<string, number>>>> = {
  major: row(
    '0M=0 2m7=0.15 2m=0.15 4m7=0.25 4m=0.3 5M=0.1 77=0 7M=0.1 9m7=0.2 9m=0.25 11ø=0 11o=0.3 0P=0 5P=0.1 7P=0 ' +
      '07=0.35 27=0.5 47=0.5 97=0.5 117=0.7 57=0.6 17=0.5 107=0.7 87=0.9 5m=0.7 5m7=0.8 2ø=0.6 6ø=0.5 7m7=1 ' +
      '8M=0.8 10M=0.8 3M=0.9 1M=0.9 0+=0.6 7+=0.2 0o=0.4 1o=0.4 2o=0.4 3o=0.4 4o=0.4 5o=0.4 6o=0.4 7o=0.4 8o=0.4 9o=0.4 10o=0.6',
  ),
  minor: row(
    '0m=0 0m7=0 2ø=0 3M=0.2 5m7=0.1 5m=0.1 77=0 8M=0.15 107=0.2 11o=0 7m7=0.3 7m=0.4 2m7=0.3 57=0.4 9ø=0.3 7ø=0.4 17=0.5 87=0.4 ' +
      '10M=0.3 1M=0.6 27=0.7 47=0.8 97=0.9 07=0.7 0P=0 7P=0.1 5P=0.1 3+=0.2 7+=0.2 0o=0.5 2o=0.2 5o=0.2 8o=0.2 1o=0.4 3o=0.4 4o=0.4 6o=0.4 7o=0.4 9o=0.4 10o=0.6',
  ),
}

/** A major seventh on the 5 holds the raised 4: nearly foreign, where the plain triad is the key's own. */
const MAJOR_SEVENTH_ON_FIVE = 0.9

export const strangeness = (chord: Chord, key: PlainKey): number => {
  const up = pitchClass(chord.root.pc - key.tonic)
  if (up === 7 && chord.quality.recipe.seventh === '7' && chord.family === 'major') return MAJOR_SEVENTH_ON_FIVE
  return STRANGE[key.mode][`${up}${kindOf(chord)}`] ?? FOREIGN
}

/** What a change of key costs: less to a near one. */
const stepCost = (from: PlainKey, to: PlainKey): number => {
  if (from.tonic === to.tonic) return from.mode === to.mode ? 0 : 1.9
  const majorOf = (k: PlainKey) => (k.mode === 'major' ? k.tonic : (k.tonic + 3) % 12)
  const fifths = (((majorOf(to) - majorOf(from)) * 7) % 12) + 12
  const away = Math.min(fifths % 12, 12 - (fifths % 12))
  return away === 0 ? 1.3 : 1.8 + 0.12 * away
}
const STEPS_INTO = ALL_KEYS.map((to) => ALL_KEYS.map((from) => stepCost(from, to)))

/** One chord on the path, with the key that a cadence it belongs to points to, if any. */
export interface OnPath {
  readonly chord: Chord
  /** Its share of the weight: long chords tell more. */
  readonly weight: number
  readonly points: PlainKey | null
}

const AGAINST_CADENCE = 1.4
/** Below this a chord counts as the key's own. */
const OWN = 0.28
const START_ELSEWHERE = 2.4
const END_ELSEWHERE = 0.6

/** A cadence counts against each key in which its goal would be a stranger. */
const against = (at: OnPath, key: PlainKey): number => {
  if (at.points === null) return 0
  const up = pitchClass(at.points.tonic - key.tonic)
  const kind = at.points.mode === 'major' ? 'M' : 'm7'
  if (up === 0 && at.points.mode === key.mode) return 0
  const strange = STRANGE[key.mode][`${up}${kind}`] ?? FOREIGN
  return strange < OWN ? OWN : AGAINST_CADENCE
}

export const sameKey = (a: PlainKey, b: PlainKey): boolean => a.tonic === b.tonic && a.mode === b.mode

/**
 * The key at each chord: the cheapest path through the keys that are `open`, where a strange chord and a change of key
 * both cost. `home` is the key of the whole; without it the path is free to begin anywhere. Source: theory page, section 7.
 */
export const keyPath = (
  chords: readonly OnPath[],
  home: PlainKey | null,
  open: readonly PlainKey[],
): readonly PlainKey[] => {
  const isHome = ALL_KEYS.map((k) => home === null || sameKey(k, home))
  const isOpen = ALL_KEYS.map((k) => open.some((o) => sameKey(o, k)))
  let costs: readonly number[] = isHome.map((h, k) => (isOpen[k] ? (h ? 0 : START_ELSEWHERE) : Infinity))
  const back: number[][] = []
  for (const [i, at] of chords.entries()) {
    const own = ALL_KEYS.map((k) => at.weight * (strangeness(at.chord, k) + against(at, k)))
    const from: number[] = []
    const before = costs
    costs = own.map((cost, k) => {
      let [best, least] = [k, before[k] as number]
      const into = STEPS_INTO[k] as readonly number[]
      if (!isOpen[k]) {
        from.push(k)
        return Infinity
      }
      for (let j = 0; i > 0 && j < 24; j++) {
        const sum = (before[j] as number) + (into[j] as number)
        if (sum < least) [best, least] = [j, sum]
      }
      from.push(best)
      return least + cost
    })
    back.push(from)
  }
  const ends = costs.map((c, k) => c + (isHome[k] ? 0 : END_ELSEWHERE))
  let at = ends.indexOf(Math.min(...ends))
  const path: PlainKey[] = []
  for (let i = chords.length - 1; i >= 0; i--) {
    path.unshift(ALL_KEYS[at] as PlainKey)
    at = back[i]?.[at] ?? at
  }
  return path
}
