import { degree, spell } from '../pitch/degree.ts'
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

/**
 * A chord as the core knows it. The sets are relative to the root (bit 0 is the root), so that one lookup by
 * semitones above the root answers for every key. Source: theory page, section 2.
 */
export interface Chord extends Recipe {
  readonly kind: 'chord'
  /** Canonical printed form, ASCII: parsing it gives this chord again. */
  readonly symbol: string
  readonly root: Note
  readonly bass: Note
  /** By degree, tensions included. */
  readonly tones: readonly Tone[]
  readonly guides: readonly Note[]
  /** Degree name for each number of semitones above the root. */
  readonly names: readonly string[]
  /** 1 3 5 7 (or 6, or 4) and the bass: what has the role `chord`. */
  readonly ownSet: PcSet
  readonly guideSet: PcSet
  readonly statedSet: PcSet
  /** What the symbol says must not be there: natural 5 on an altered fifth, 9 by an altered ninth, 13 by b13. */
  readonly deniedSet: PcSet
}

export interface NoChord {
  readonly kind: 'no chord'
  readonly symbol: 'N.C.'
}
export type Harmony = Chord | NoChord

export const NO_CHORD: NoChord = { kind: 'no chord', symbol: 'N.C.' }

const ALT_TENSIONS = ['b9', '#9', '#11', 'b13']
const semitonesOf = (name: string): number => pitchClass(degree(name).semitones)

const deniedBy = (r: Recipe): PcSet => {
  const denied: number[] = []
  if (r.altered || (r.fifth !== null && r.fifth !== '5')) denied.push(7)
  if (r.family === 'dominant' || r.family === 'suspended') {
    if (r.altered || r.tensions.includes('b9') || r.tensions.includes('#9')) denied.push(2)
    if (r.altered || r.tensions.includes('b13') || r.fifth === '#5') denied.push(9)
  }
  const stated = setOf(r.tensions.map(semitonesOf))
  return setOf(denied.filter((n) => !has(stated, n)))
}

const guidesOf = (r: Recipe): string[] =>
  [r.third, r.seventh].filter((d): d is string => d !== null && (r.family !== 'power' || d !== r.third))

/** Spells a recipe on its root. `upper` is the upper chord of a polychord: its notes become stated tensions. */
export const buildChord = (root: Note, bass: Note, recipe: Recipe, symbol: string, upper?: Chord): Chord => {
  const own = ['1', recipe.third, recipe.fifth, recipe.seventh].filter((d): d is string => d !== null)
  const tensions = recipe.altered ? [...new Set([...ALT_TENSIONS, ...recipe.tensions])] : recipe.tensions
  const names = [...columnOf(recipe.family)]
  for (const name of [...tensions, ...own]) names[semitonesOf(name)] = name
  const ownSet = setOf(own.map(semitonesOf))
  const fromUpper = (upper?.tones ?? [])
    .map((t) => pitchClass(t.note.pc - root.pc))
    .filter((n) => !has(ownSet, n))
    .map((n) => names[n] ?? '1')
  const stated = [...new Set([...tensions, ...fromUpper])].sort((a, b) => {
    const [x, y] = [degree(a), degree(b)]
    return x.step - y.step || x.alter - y.alter
  })
  const tone = (name: string, isStated: boolean): Tone => ({
    note: spell(root, degree(name)),
    degree: name,
    stated: isStated,
  })
  const guides = guidesOf(recipe)
  return {
    ...recipe,
    kind: 'chord',
    symbol,
    root,
    bass,
    names,
    tones: [...own.map((d) => tone(d, false)), ...stated.map((d) => tone(d, true))],
    guides: guides.map((d) => spell(root, degree(d))),
    ownSet: (ownSet | (1 << pitchClass(bass.pc - root.pc))) as PcSet,
    guideSet: setOf(guides.map(semitonesOf)),
    statedSet: setOf(stated.map(semitonesOf)),
    deniedSet: deniedBy(recipe),
  }
}

/** The degree name of a pitch class over a chord, and the note as it is heard there. */
export const degreeOver = (chord: Chord, pc: number): string => chord.names[pitchClass(pc - chord.root.pc)] ?? '1'
export const heardOver = (chord: Chord, pc: number): Note => {
  const heard = spell(chord.root, degree(degreeOver(chord, pc)))
  return heard.pc === pitchClass(pc) ? heard : plainNote(pitchClass(pc))
}

export const isDominant = (chord: Chord): boolean => chord.family === 'dominant' || chord.family === 'suspended'
/** A target is named with `m` where the chord is minor or half-diminished. */
export const isMinorTarget = (chord: Chord): boolean =>
  chord.family === 'minor' || chord.family === 'half-diminished' || chord.family === 'diminished'
