/** A small seeded generator (mulberry32), so that every run measures the same questions. */
export const seeded = (seed: number): (() => number) => {
  let state = seed
  return () => {
    state = (state + 0x6d2b79f5) | 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

export interface Triple {
  readonly root: string
  readonly scale: string
  readonly chord: string
  readonly next: string
}

const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
/** Names that a general theory library knows too. */
const SCALES = [
  'dorian',
  'phrygian',
  'lydian',
  'mixolydian',
  'aeolian',
  'locrian',
  'melodic minor',
  'phrygian dominant',
  'harmonic minor',
  'lydian dominant',
  'major pentatonic',
  'minor pentatonic',
]
const CHORDS = ['maj7', 'm7', '7', 'm7b5', 'dim7', '7b9', '6', 'm6', '7#11']

/** Different triples of an overlay, its chord and the next one. */
export const triples = (count: number, seed: number): readonly Triple[] => {
  const chance = seeded(seed)
  const pick = (from: readonly string[]): string => from[Math.floor(chance() * from.length)] ?? ''
  const found = new Map<string, Triple>()
  while (found.size < count) {
    const t = {
      root: pick(ROOTS),
      scale: pick(SCALES),
      chord: pick(ROOTS) + pick(CHORDS),
      next: pick(ROOTS) + pick(CHORDS),
    }
    found.set(Object.values(t).join(' '), t)
  }
  return [...found.values()]
}
