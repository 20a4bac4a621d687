import { buildChord, type Chord, qualityOf } from '../chord/chord.ts'
import { readChord } from '../chord/parse.ts'
import { printSymbol } from '../chord/print.ts'
import { materialNamed } from '../material/material.ts'
import { generatedRoot, type Overlay } from '../material/overlay.ts'
import { degree } from '../pitch/degree.ts'
import { has, union } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import { homeName, homeOf } from './home.ts'
import { placeOf, type Reading, readOver } from './read.ts'
import type { Place, Role } from './role.ts'
import type { School } from './school.ts'
import type { Weights } from './weights.ts'

/** How an overlay sits over a chord: wholly inside, with tensions that want to move, or with notes outside. */
export type Sits = 'in' | 'altered' | 'out'

export interface Served {
  readonly chord: Chord
  readonly sits: Sits
  readonly fade: number
}

const TYPES = [
  'maj7',
  '6',
  'm7',
  'm6',
  'mMaj7',
  '7',
  '7b9',
  '7#11',
  '7#5',
  '7alt',
  '7sus4',
  'm7b5',
  'dim7',
  '+',
] as const

const MINOR_THIRD = /^(m(?!aj)|dim)/

export const sitsOf = (reading: Reading): Sits => {
  const { counts } = reading
  if (counts.outside > 0) return 'out'
  const inside = counts.altered + counts.suspension === 0 && reading.notes.every((n) => n.inHome)
  return inside ? 'in' : 'altered'
}

/**
 * The reverse question: over which chords an overlay serves, nearest first. Every type of chord on every root, each
 * asked alone. Source: theory page, section 5.
 */
export const servesOver = (overlay: Overlay, school: School, weights: Weights): readonly Served[] => {
  const served: Served[] = []
  for (let pc = 0; pc < 12; pc++)
    for (const type of TYPES) {
      const read = readChord(
        generatedRoot(pitchClass(pc), overlay.notes, materialNamed(MINOR_THIRD.test(type) ? 'dorian' : 'ionian')).name +
          type,
      )
      if (!read.ok) throw new Error(`a chord type of our own does not read: ${type}`)
      const reading = readOver(overlay, placeOf(read.value, null, school, null), weights)
      served.push({ chord: read.value, sits: sitsOf(reading), fade: reading.fade })
    }
  return served.sort((a, b) => a.fade - b.fade)
}

/** A tension put into a chord's symbol: the home scale it then has, and whether that is another one. */
export interface TensionEffect {
  readonly tension: string
  readonly scale: string
  readonly changes: boolean
}

const TENSIONS = ['b9', '9', '#9', '11', '#11', 'b13', '13'] as const

/** Which changed tension forces another home scale: a 9 keeps it, a b9 does not. Tensions the chord holds are left out. */
export const tensionEffects = ({ chord, next, job, school }: Place): readonly TensionEffect[] => {
  const now = homeName(homeOf(chord, next, job, school).first)
  const { recipe, ownSet, statedSet } = chord.quality
  const held = union(ownSet, statedSet)
  return TENSIONS.filter((t) => !has(held, pitchClass(degree(t).semitones))).map((tension) => {
    const step = degree(tension).step
    const tensions = [...recipe.tensions.filter((t) => degree(t).step !== step), tension]
    const stated = { ...recipe, tensions }
    const changed = buildChord(chord.root, chord.bass, qualityOf(stated), printSymbol(chord.root, chord.bass, stated))
    const scale = homeName(homeOf(changed, next, job, school).first)
    return { tension, scale, changes: scale !== now }
  })
}

/** A note that two chords judge differently: the one imagined and the one that sounds. */
export interface Disagreement {
  readonly name: string
  readonly imagined: { readonly degree: string; readonly role: Role }
  readonly sounding: { readonly degree: string; readonly role: Role }
}

/** What the imagined chord and the sounding one disagree on, note by note. */
export const disagreements = (imagined: Reading, sounding: Reading): readonly Disagreement[] =>
  imagined.notes.flatMap((n, i) => {
    const heard = sounding.notes[i]
    if (!heard || (heard.role === n.role && heard.degree === n.degree)) return []
    return {
      name: n.note.name,
      imagined: { degree: n.degree, role: n.role },
      sounding: { degree: heard.degree, role: heard.role },
    }
  })
