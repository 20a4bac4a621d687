import { Chord, Note, Scale } from 'tonal'
import type { Triple } from './seeded.ts'

/** The same answer by a general theory library, written as one would write it there. */
export interface Told {
  readonly notes: readonly {
    readonly name: string
    readonly degree: string
    readonly role: string
    readonly exits: readonly { readonly to: string; readonly how: string; readonly strength: number }[]
  }[]
  readonly landing: number
}

const COLUMNS: Readonly<Record<string, readonly string[]>> = {
  dominant: '1 b9 9 #9 3 11 #11 5 b13 13 b7 7'.split(' '),
  major: '1 b9 9 #9 3 11 #11 5 b13 13 b7 7'.split(' '),
  minor: '1 b9 9 b3 3 11 #11 5 b13 13 b7 7'.split(' '),
  halfDiminished: '1 b9 9 b3 3 11 b5 5 b13 13 b7 7'.split(' '),
  diminished: '1 b9 9 b3 3 11 b5 5 b13 bb7 b7 7'.split(' '),
}
const SIXTH: Readonly<Record<string, readonly string[]>> = {
  major: (COLUMNS.major ?? []).map((n) => (n === '13' ? '6' : n)),
  minor: (COLUMNS.minor ?? []).map((n) => (n === '13' ? '6' : n)),
}

/** Home scale and the others also offered, by the chord's type; enough for the types that are asked about. */
const HOMES: Readonly<Record<string, readonly string[]>> = {
  maj7: ['major', 'lydian'],
  '6': ['major', 'lydian'],
  m7: ['dorian', 'aeolian'],
  m6: ['melodic minor', 'dorian', 'aeolian', 'harmonic minor'],
  '7': ['mixolydian', 'half-whole diminished', 'altered', 'lydian dominant', 'whole tone'],
  m7b5: ['locrian #2', 'locrian'],
  dim7: ['diminished'],
  '7b9': ['half-whole diminished', 'altered', 'phrygian dominant'],
  '7#11': ['lydian dominant', 'mixolydian'],
}
const columnOf = (type: string): readonly string[] | undefined => {
  if (type === 'dim7') return COLUMNS.diminished
  if (type === 'm7b5') return COLUMNS.halfDiminished
  if (type === '6' || type === 'm6') return SIXTH[type === '6' ? 'major' : 'minor']
  return COLUMNS[type.startsWith('maj') ? 'major' : type.startsWith('m') ? 'minor' : 'dominant']
}

const chroma = (note: string): number => Note.chroma(note) ?? 0
const chromas = (notes: readonly string[]): ReadonlySet<number> => new Set(notes.map(chroma))
const up = (from: number, by: number): number => (from + by + 12) % 12

const MOVES = [
  [0, 'held', 0.45, 0.3, 0],
  [-1, 'half step down', 1, 0.8, 0.1],
  [1, 'half step up', 1, 0.8, 0.1],
  [-2, 'whole step down', 0.4, 0.2, 0],
  [2, 'whole step up', 0.4, 0.2, 0],
] as const

export const byTonal = ({ root, scale, chord, next }: Triple): Told => {
  const over = Chord.get(chord)
  const tonic = over.tonic ?? ''
  const type = chord.slice(tonic.length)
  const scales = (HOMES[type] ?? []).map((name) => Scale.get(`${tonic} ${name}`))
  const inside = chromas(scales[0]?.notes ?? [])
  const offered = chromas(scales.filter((s) => s.notes.length === 7).flatMap((s) => s.notes))
  const own = chromas(over.notes.slice(0, 4))
  const column = columnOf(type) ?? []
  const bottom = chroma(tonic)
  const roleOf = (pc: number, degree: string): string => {
    if (own.has(pc)) return 'chord'
    if (column === COLUMNS.dominant && ['b9', '#9', '#11', 'b13'].includes(degree)) return 'altered'
    if ((inside.has(pc) || offered.has(pc)) && own.has(up(pc, -1))) return 'suspension'
    return inside.has(pc) || (offered.has(pc) && ['9', '11', '13'].includes(degree)) ? 'extension' : 'outside'
  }
  const target = Chord.get(next)
  const nextType = next.slice((target.tonic ?? '').length)
  const nextHome = Scale.get(`${target.tonic} ${HOMES[nextType]?.[0] ?? 'major'}`)
  const guides = chromas([target.notes[1] ?? '', target.notes[3] ?? ''])
  const tones = new Map([...nextHome.notes, ...target.notes].map((n) => [chroma(n), n]))
  const chordTones = chromas(target.notes)
  const exitsOf = (pc: number) =>
    MOVES.flatMap(([by, how, guide, tone, extension]) => {
      const at = up(pc, by)
      const to = tones.get(at)
      const strength = guides.has(at) ? guide : chordTones.has(at) ? tone : extension
      return to === undefined || strength === 0 ? [] : [{ to, how, strength }]
    }).sort((a, b) => b.strength - a.strength)
  const notes = Scale.get(`${root} ${scale}`).notes.map((name) => {
    const pc = chroma(name)
    const degree = column[up(pc, -bottom)] ?? ''
    return { name, degree, role: roleOf(pc, degree), exits: exitsOf(pc) }
  })
  const weight = (n: (typeof notes)[number]): number => (n.role === 'chord' || n.role === 'extension' ? 1 : 2)
  const weights = notes.reduce((sum, n) => sum + weight(n), 0)
  const landing = notes.reduce((sum, n) => sum + weight(n) * (n.exits[0]?.strength ?? 0), 0) / weights
  return { notes, landing: Math.round(100 * landing) }
}
