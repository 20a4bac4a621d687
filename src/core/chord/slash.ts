import type { Note } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { buildChord, type Chord, qualityOf, type Recipe, type SlashKind, tonesOf } from './chord.ts'
import { readQuality } from './quality.ts'

const recipeOf = (symbol: string): Recipe => {
  const read = readQuality(symbol, 0)
  if (!read.ok || read.value.end !== symbol.length) throw new Error(`not a chord quality: ${symbol}`)
  return read.value.recipe
}

interface SlashRow {
  /** Semitones from the bass up to the upper chord's root. */
  readonly above: number
  readonly upper: (r: Recipe) => boolean
  /** Whether it holds only where the bass goes on a fifth down, or only where it does not; null for either. */
  readonly falls: boolean | null
  readonly kind: SlashKind
  /** What stands on the bass; the upper chord's other notes count as stated. */
  readonly makes: Recipe
}

const majorTriad = (r: Recipe): boolean => r.family === 'major' && r.seventh === null && r.fifth === '5'
const majorChord = (r: Recipe): boolean => r.family === 'major' && r.fifth === '5' && !r.tensions.includes('#11')
const minorSeventh = (r: Recipe): boolean => r.family === 'minor' && r.seventh === 'b7'
const minorTriad = (r: Recipe): boolean => r.family === 'minor' && r.seventh === null

/** Source: theory page, section 4, slash chords. The first row that fits; where none does the bass is an added tone. */
const ROWS: readonly SlashRow[] = [
  { above: 10, upper: majorChord, falls: null, kind: 'suspended', makes: recipeOf('7sus4') },
  { above: 7, upper: minorSeventh, falls: null, kind: 'suspended', makes: recipeOf('7sus4') },
  // A minor triad on the fifth is the same chord less its 4, where it goes home as a dominant does.
  { above: 7, upper: minorTriad, falls: true, kind: 'suspended', makes: recipeOf('7sus4') },
  { above: 2, upper: majorTriad, falls: null, kind: 'lydian', makes: recipeOf('maj7') },
  { above: 4, upper: majorTriad, falls: null, kind: 'lydian augmented', makes: recipeOf('maj7#5') },
  { above: 1, upper: majorTriad, falls: true, kind: 'suspended b9', makes: recipeOf('7sus4') },
  { above: 1, upper: majorTriad, falls: false, kind: 'phrygian', makes: recipeOf('m7') },
  { above: 6, upper: majorTriad, falls: null, kind: 'half-whole', makes: recipeOf('7') },
  { above: 11, upper: majorTriad, falls: null, kind: 'diminished', makes: recipeOf('dim(maj7)') },
]
const SEVENTH = recipeOf('7')

/** A seventh in the bass of a minor triad, by semitones above its root: it is that seventh chord inverted. */
const MINOR_SEVENTHS: Readonly<Record<number, Recipe>> = { 10: recipeOf('m7'), 11: recipeOf('mMaj7') }

const isInverted = ({ root, bass, quality }: Chord): boolean =>
  ((quality.ownSet >> pitchClass(bass.pc - root.pc)) & 1) === 1

/** Whether a chord goes on to one whose root lies a fifth below a note. */
const fallsFrom = (pc: number, next: Chord | null): boolean =>
  next !== null && pitchClass(next.root.pc - pc) === 5 && next.family !== 'diminished'

const made = (chord: Chord, root: Note, recipe: Recipe, slash: SlashKind, bass = root): Chord => {
  const upper = tonesOf(chord).map((t) => pitchClass(t.note.pc - root.pc))
  return { ...buildChord(root, bass, qualityOf(recipe, upper), chord.symbol), slash }
}

/**
 * A chord over a foreign bass as it is heard: what the bass makes of it, on the bass, under the symbol that was written
 * (`Bb/C` is a C9sus). `next` tells a dominant over its seventh (`G/F` to C) from Lydian (`D/C`). Inversions, and what
 * no rule names, stay as they are. Source: theory page, section 4.
 */
export const overItsBass = (chord: Chord, next: Chord | null): Chord => {
  if (chord.bass === chord.root || chord.slash || isInverted(chord)) return chord
  const { recipe } = chord.quality
  const seventh = recipe.family === 'minor' ? MINOR_SEVENTHS[pitchClass(chord.bass.pc - chord.root.pc)] : undefined
  if (seventh) return minorTriad(recipe) ? made(chord, chord.root, seventh, 'over its seventh', chord.bass) : chord
  const above = pitchClass(chord.root.pc - chord.bass.pc)
  if (above === 2 && majorTriad(recipe) && fallsFrom(chord.root.pc, next))
    return made(chord, chord.root, SEVENTH, 'over its seventh', chord.bass)
  const falls = fallsFrom(chord.bass.pc, next)
  const row = ROWS.find((r) => r.above === above && r.upper(recipe) && (r.falls === null || r.falls === falls))
  return row ? made(chord, chord.bass, row.makes, row.kind) : chord
}
