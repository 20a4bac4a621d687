import { exitWeight, type NoteReading, type Reading } from './read.ts'
import type { Weights } from './weights.ts'

/** One figure of a sum with the words for it. */
export interface Term {
  readonly words: string
  readonly amount: number
}

/** One note's fade as the sum it is. */
export interface NoteWhy {
  readonly note: NoteReading
  readonly terms: readonly Term[]
  /** The best way out: its strength in hundredths, and how often it counts in the landing. */
  readonly exit: number
  readonly counts: number
}

/** An overlay's fade and landing unfolded: the figures on the screen are these, rounded once. */
export interface Why {
  readonly notes: readonly NoteWhy[]
  readonly mean: number
  readonly worst: number
  readonly meanShare: number
  readonly landing: { readonly sum: number; readonly counts: number } | null
}

const ALTERED = { 1: 'b9', 3: '#9', 6: '#11', 8: 'b13' } as const

const extensionTerms = ({ up, inHome, fade }: NoteReading, w: Weights): readonly Term[] => {
  const base = up === 2 ? w.ninth : up === 6 ? w.sharpEleven : w.extension
  const words = up === 2 ? 'extension, a 9' : up === 6 ? 'extension, a #11' : 'extension'
  const away = fade - base
  return [{ words, amount: base }, ...(away > 0 && !inHome ? [{ words: 'not in the home scale', amount: away }] : [])]
}

const alteredTerms = ({ up, inHome, stated }: NoteReading, w: Weights): readonly Term[] => {
  const degree = ALTERED[up as keyof typeof ALTERED]
  const base = { words: `altered ${degree}`, amount: w.altered[degree] }
  if (!(inHome || stated)) return [base]
  return [base, { words: stated ? 'the symbol holds it' : 'the home scale holds it', amount: -w.alteredHeld }]
}

/** The words behind one note's fade; their amounts add up to it. */
const termsOf = (n: NoteReading, w: Weights): readonly Term[] => {
  const terms = termsByRole(n, w)
  const less = n.fade - terms.reduce((sum, t) => sum + t.amount, 0)
  return less < 0 && n.blue ? [...terms, { words: 'a blue note', amount: less }] : terms
}

const termsByRole = (n: NoteReading, w: Weights): readonly Term[] => {
  switch (n.role) {
    case 'chord':
      return [{ words: 'chord tone', amount: w.chord }]
    case 'extension':
      return extensionTerms(n, w)
    case 'altered':
      return alteredTerms(n, w)
    case 'suspension':
      return [
        {
          words: `suspension ${n.inHome ? 'in' : 'not in'} the home scale`,
          amount: n.inHome ? w.suspensionHome : w.suspensionAway,
        },
      ]
    case 'outside': {
      const why =
        n.rub === 'guide'
          ? 'outside, rubs a guide tone'
          : n.rub === 'root'
            ? 'outside, rubs the root'
            : n.minorSeven
              ? `the natural 7 over a minor chord${n.minorSeven === 'over a tonic' ? ' at rest' : ''}`
              : n.denied
                ? 'outside, the symbol denies it'
                : 'outside'
      return [{ words: why, amount: n.fade }]
    }
  }
}

/** Unfolds a reading's fade and landing into their sums. Source: theory page, section 5. */
export const whyOf = (reading: Reading, weights: Weights): Why => {
  const notes = reading.notes.map((note) => ({
    note,
    terms: termsOf(note, weights),
    exit: Math.round(100 * (note.exits[0]?.strength ?? 0)),
    counts: exitWeight(note),
  }))
  const add = (of: (n: NoteWhy) => number): number => notes.reduce((sum, n) => sum + of(n), 0)
  return {
    notes,
    mean: add((n) => n.note.fade) / notes.length,
    worst: reading.worst.fade,
    meanShare: weights.meanShare,
    landing: reading.landing === null ? null : { sum: add((n) => n.exit * n.counts), counts: add((n) => n.counts) },
  }
}
