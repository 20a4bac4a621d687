import type { Chord } from '../chord/chord.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { placeOf, type Reading, readOver } from '../reading/read.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import { drawn, type Rng } from './drawing.ts'
import type { Choice, Made } from './quiz.ts'
import { anyChord } from './quiz-degrees.ts'

export const MATERIALS = ['', 'm', '+', 'minor pentatonic', 'minor b5 pentatonic', 'maj7 arpeggio'] as const
export const TYPES = ['maj7', '7', 'm7', '7alt'] as const

export const overlayOver = (pc: number, material: string, chord: Chord): Reading => {
  const root = plainNote(pitchClass(pc), material.startsWith('m') && !material.startsWith('maj')).name
  const read = readOverlay(/^[a-z+]$/.test(material) || material === '' ? root + material : `${root} ${material}`)
  if (!read.ok) throw new Error(`an overlay of the quiz does not read: ${root} ${material}`)
  return readOver(read.value, placeOf(chord, null, DEFAULT_SCHOOL, null), DEFAULT_WEIGHTS)
}

/** The degrees that are no chord tones, in their order above the root. */
const tensionsOf = ({ notes }: Reading): readonly string[] =>
  [...notes]
    .filter((n) => n.role !== 'chord')
    .sort((a, b) => a.up - b.up)
    .map((n) => n.degree)
const said = (degrees: readonly string[]): string => (degrees.length === 0 ? 'none' : degrees.join(' '))

export const tensionsQuestion = (rng: Rng): Made => {
  const [chord, material] = [anyChord(rng, TYPES), drawn(MATERIALS, rng)]
  const pc = Math.floor(rng() * 12)
  const reading = overlayOver(pc, material, chord)
  const { name } = reading.overlay
  return {
    ask: `Which tensions does ${name} make over ${chord.symbol}?`,
    right: said(tensionsOf(reading)),
    wrong: [1, -1, 5, 7, 2].map((by): Choice => {
      const other = overlayOver(pc + by, material, chord)
      return { text: said(tensionsOf(other)), why: `Those are of ${other.overlay.name}.` }
    }),
    proof: `${reading.notes.map((n) => `${n.note.name} ${n.degree}`).join(', ')}.`,
  }
}

/** Two tensions and the overlay that makes both of them; the others lack one. */
export const whichOverlayQuestion = (rng: Rng): Made | null => {
  const [chord, material] = [anyChord(rng, TYPES), drawn(MATERIALS, rng)]
  const all = Array.from({ length: 12 }, (_, pc) => overlayOver(pc, material, chord))
  const reading = drawn(all, rng)
  const tensions = tensionsOf(reading)
  if (tensions.length < 2) return null
  const wanted = [tensions[0], tensions[tensions.length - 1]] as [string, string]
  const lacking = (r: Reading): string | undefined => wanted.find((d) => !r.notes.some((n) => n.degree === d))
  const others = all.filter((r) => r !== reading && lacking(r) !== undefined)
  return {
    ask: `Which of these makes ${wanted.join(' and ')} over ${chord.symbol}?`,
    right: reading.overlay.name,
    wrong: Array.from({ length: 6 }, () => drawn(others, rng)).map((r) => ({
      text: r.overlay.name,
      why: `${r.overlay.name} has no ${lacking(r)}.`,
    })),
    proof: `${reading.notes.map((n) => `${n.note.name} ${n.degree}`).join(', ')}.`,
  }
}

/** Nearer than this no ear tells which is further out. */
const APART = 12

export const furtherOutQuestion = (rng: Rng): Made | null => {
  const [chord, material] = [anyChord(rng, TYPES), drawn(MATERIALS, rng)]
  const [a, b] = [0, 1].map(() => overlayOver(Math.floor(rng() * 12), material, chord)) as [Reading, Reading]
  if (Math.abs(a.fade - b.fade) < APART) return null
  const [out, inward] = a.fade > b.fade ? [a, b] : [b, a]
  return {
    ask: `Which is further out over ${chord.symbol}: ${a.overlay.name} or ${b.overlay.name}?`,
    right: out.overlay.name,
    wrong: [{ text: inward.overlay.name, why: `Its fade is ${inward.fade}, the other's ${out.fade}.` }],
    proof: `Fade ${out.fade} against ${inward.fade}; the worst note is ${out.worst.note.name}, the ${out.worst.degree}.`,
  }
}
