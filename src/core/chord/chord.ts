import { type Degree, degree, spell } from '../pitch/degree.ts'
import { type Note, plainNote } from '../pitch/note.ts'
import { has, setOf } from '../pitch/pcset.ts'
import { type PcSet, pitchClass } from '../pitch/units.ts'
import { columnOf, type Family } from './degree-names.ts'

/** One spelled note of a chord. `stated` marks a tension the symbol asks for, beside the chord's own 1 3 5 7. */
export interface Tone {
  readonly note: Note
  readonly degree: string
  readonly stated: boolean
}

/** What a symbol says, before it is spelled: degrees in ASCII. `third`, `fifth` and `seventh` are null where left out. */
export interface Recipe {
  readonly family: Family
  readonly third: string | null
  readonly fifth: string | null
  /** `b7`, `7`, `bb7`, or `6` on a sixth chord. */
  readonly seventh: string | null
  /** Stated tensions, lowest step first. */
  readonly tensions: readonly string[]
  /** `7alt`: the fifth is left open and b9 #9 #11 b13 are all stated. */
  readonly altered: boolean
  readonly omitted: readonly ('3' | '5')[]
}

/** A recipe with all that follows from it in every key. Sets are relative to the root: bit 0 is the root. */
export interface Quality {
  readonly recipe: Recipe
  readonly own: readonly Degree[]
  readonly stated: readonly Degree[]
  readonly guides: readonly Degree[]
  /** Degree for each number of semitones above the root. */
  readonly degrees: readonly Degree[]
  /** 1 3 5 7 (or 6, or 4): what has the role `chord`, beside a slash bass. */
  readonly ownSet: PcSet
  readonly guideSet: PcSet
  readonly statedSet: PcSet
  /** What the symbol says must not be there: natural 5 on an altered fifth, 9 by an altered ninth, 13 by b13. */
  readonly deniedSet: PcSet
}

/** What a foreign bass makes of the chord above it. Source: theory page, section 4. */
export type SlashKind =
  | 'suspended'
  | 'lydian'
  | 'lydian augmented'
  | 'phrygian'
  | 'suspended b9'
  | 'half-whole'
  | 'diminished'
  | 'over its seventh'

/** A chord as the core knows it: a quality, spelled on its root. Source: theory page, section 2. */
export interface Chord {
  readonly kind: 'chord'
  /** Canonical printed form, ASCII: parsing it gives this chord again. */
  readonly symbol: string
  readonly root: Note
  readonly bass: Note
  readonly family: Family
  readonly quality: Quality
  /** The quality's own set and the bass. */
  readonly ownSet: PcSet
  /** The note each number of semitones above the root is heard as: spelled as its degree. */
  readonly heard: readonly Note[]
  /** Set where the chord is read from its foreign bass: its symbol is then what was written, the rest what is heard. */
  readonly slash?: SlashKind
}

export interface NoChord {
  readonly kind: 'no chord'
  /** `?` where a chord stands that was not understood. */
  readonly symbol: 'N.C.' | '?'
}
export type Harmony = Chord | NoChord

export const NO_CHORD: NoChord = { kind: 'no chord', symbol: 'N.C.' }
/** A hole: some chord sounds, and which is not known. It has no reading, like `N.C.`. */
export const UNKNOWN_CHORD: NoChord = { kind: 'no chord', symbol: '?' }

const ALT_TENSIONS = ['b9', '#9', '#11', 'b13']
const semitonesOf = (d: Degree): number => pitchClass(d.semitones)
const setOfDegrees = (all: readonly Degree[]): PcSet => setOf(all.map(semitonesOf))
const byStep = (a: Degree, b: Degree): number => a.step - b.step || a.alter - b.alter

const deniedBy = (r: Recipe, stated: PcSet): PcSet => {
  const denied: number[] = []
  if (r.altered || (r.fifth !== null && r.fifth !== '5')) denied.push(7)
  if (r.family === 'dominant' || r.family === 'suspended') {
    if (r.altered || r.tensions.includes('b9') || r.tensions.includes('#9')) denied.push(2)
    if (r.altered || r.tensions.includes('b13') || r.fifth === '#5') denied.push(9)
  }
  return setOf(denied.filter((n) => !has(stated, n)))
}

/** All that follows from a recipe. `upper` holds the semitones of a polychord's upper chord, which count as stated. */
export const qualityOf = (recipe: Recipe, upper: readonly number[] = []): Quality => {
  const own = ['1', recipe.third, recipe.fifth, recipe.seventh].filter((d): d is string => d !== null).map(degree)
  const named = recipe.altered ? [...new Set([...ALT_TENSIONS, ...recipe.tensions])] : recipe.tensions
  const degrees = columnOf(recipe.family).map(degree)
  for (const d of [...named.map(degree), ...own]) degrees[semitonesOf(d)] = d
  const ownSet = setOfDegrees(own)
  const fromUpper = upper.filter((n) => !has(ownSet, n)).map((n) => degrees[n] as Degree)
  const stated = [...new Set([...named.map(degree), ...fromUpper])].sort(byStep)
  const guides =
    recipe.family === 'power' ? [] : [recipe.third, recipe.seventh].filter((d): d is string => d !== null).map(degree)
  const statedSet = setOfDegrees(stated)
  return Object.freeze({
    recipe,
    own,
    stated,
    guides,
    degrees,
    ownSet,
    guideSet: setOfDegrees(guides),
    statedSet,
    deniedSet: deniedBy(recipe, statedSet),
  })
}

const spellHeard = (root: Note, d: Degree, up: number): Note => {
  const heard = spell(root, d)
  const pc = pitchClass(root.pc + up)
  return heard.pc === pc ? heard : plainNote(pc)
}

/** A quality on its root, over its bass. */
export const buildChord = (root: Note, bass: Note, quality: Quality, symbol: string): Chord => ({
  kind: 'chord',
  symbol,
  root,
  bass,
  family: quality.recipe.family,
  quality,
  ownSet: (quality.ownSet | (1 << pitchClass(bass.pc - root.pc))) as PcSet,
  heard: quality.degrees.map((d, up) => spellHeard(root, d, up)),
})

/** The chord's notes by degree, tensions included. */
export const tonesOf = ({ root, quality }: Chord): readonly Tone[] => {
  const tone = (d: Degree, stated: boolean): Tone => ({ note: spell(root, d), degree: d.name, stated })
  return [...quality.own.map((d) => tone(d, false)), ...quality.stated.map((d) => tone(d, true))]
}

/** 3 and 7; 3 and 6 on sixth chords; 4 and 7 on suspended ones. */
export const guidesOf = ({ root, quality }: Chord): readonly Note[] => quality.guides.map((d) => spell(root, d))

/** The degree name of a pitch class over a chord, and the note as it is heard there. */
export const degreeOver = (chord: Chord, pc: number): string =>
  chord.quality.degrees[pitchClass(pc - chord.root.pc)]?.name ?? '1'
export const heardOver = (chord: Chord, pc: number): Note => chord.heard[pitchClass(pc - chord.root.pc)] ?? chord.root

export const isDominant = (chord: Chord): boolean => chord.family === 'dominant' || chord.family === 'suspended'
/** A target is named with `m` where the chord is minor or half-diminished. */
export const isMinorTarget = (chord: Chord): boolean =>
  chord.family === 'minor' || chord.family === 'half-diminished' || chord.family === 'diminished'
