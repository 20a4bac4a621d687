import { jobFromNext, jobName } from '../chart/job.ts'
import { type Chord, guidesOf, tonesOf } from '../chord/chord.ts'
import { readChord } from '../chord/parse.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { drawn, type Rng } from './drawing.ts'
import type { Choice, Made } from './quiz.ts'

const TYPES = ['maj7', '7', 'm7', 'm7b5', 'm6', '7alt', 'mMaj7', '7sus4'] as const

/** A chord of our own table on a root that reads plainly. */
export const chordOf = (pc: number, type: string): Chord => {
  const read = readChord(plainNote(pitchClass(pc), /^m(?!aj)/.test(type)).name + type)
  if (!read.ok) throw new Error(`a chord of the quiz does not read: ${type}`)
  return read.value
}
export const anyChord = (rng: Rng, types: readonly string[] = TYPES): Chord =>
  chordOf(Math.floor(rng() * 12), drawn(types, rng))

/** What a degree is taken for: its neighbours by a half step and by a whole step, and a tritone away. */
const CONFUSED = [1, -1, 2, -2, 6] as const

const nameAt = ({ quality }: Chord, up: number): string => quality.degrees[pitchClass(up)]?.name ?? '1'
const noteAt = ({ heard, root }: Chord, up: number): string => (heard[pitchClass(up)] ?? root).name

/** Which degree a note is, so many half steps above a chord's root. */
export const degreeQuestion = (chord: Chord, up: number): Made => {
  const [note, right] = [noteAt(chord, up), nameAt(chord, up)]
  return {
    ask: `Which degree is ${note} over ${chord.symbol}?`,
    right,
    pc: pitchClass(chord.root.pc + up),
    wrong: CONFUSED.map((by): Choice => {
      const text = nameAt(chord, up + by)
      return {
        text,
        why: `The ${text} of ${chord.symbol} is ${noteAt(chord, up + by)}.`,
        pc: pitchClass(chord.root.pc + up + by),
      }
    }),
    proof: `${note} stands ${up} half ${up === 1 ? 'step' : 'steps'} above ${chord.root.name}: the ${right}.`,
  }
}

export const anyDegreeQuestion = (rng: Rng): Made => degreeQuestion(anyChord(rng), 1 + Math.floor(rng() * 11))

export const noteQuestion = (rng: Rng): Made => {
  const chord = anyChord(rng)
  const up = 1 + Math.floor(rng() * 11)
  const [degree, right] = [nameAt(chord, up), noteAt(chord, up)]
  return {
    ask: `Which note is the ${degree} of ${chord.symbol}?`,
    right,
    pc: pitchClass(chord.root.pc + up),
    wrong: CONFUSED.map((by): Choice => {
      const text = noteAt(chord, up + by)
      return {
        text,
        why: `${text} is the ${nameAt(chord, up + by)} of ${chord.symbol}.`,
        pc: pitchClass(chord.root.pc + up + by),
      }
    }),
    proof: `The ${degree} stands ${up} half ${up === 1 ? 'step' : 'steps'} above ${chord.root.name}: ${right}.`,
  }
}

/** A note over a dominant and the chord tone a half step away in the chord it goes to. */
export const wayHomeQuestion = (rng: Rng): Made | null => {
  const next = anyChord(rng, ['maj7', 'm7', '6'])
  const dominant = chordOf(next.root.pc + 7, '7')
  const pc = Math.floor(rng() * 12)
  const down = rng() < 0.5
  const tones = tonesOf(next).filter((t) => !t.stated)
  const target = tones.find((t) => t.note.pc === pitchClass(pc + (down ? -1 : 1)))
  if (!target || tones.some((t) => t.note.pc === pc)) return null
  const note = noteAt(dominant, pc - dominant.root.pc)
  const way = down ? 'down' : 'up'
  const said = (t: (typeof tones)[number]): string => `${t.note.name}, the ${t.degree}`
  return {
    ask: `Over ${dominant.symbol} to ${next.symbol}: where does ${note} go by a half step ${way}?`,
    right: said(target),
    pc: target.note.pc,
    wrong: tones
      .filter((t) => t !== target)
      .map((t) => {
        const by = pitchClass(down ? pc - t.note.pc : t.note.pc - pc)
        return { text: said(t), why: `${t.note.name} lies ${by} half steps ${way} of ${note}.`, pc: t.note.pc }
      }),
    proof: `A half step ${way} from ${note} is ${target.note.name}, the ${target.degree} of ${next.symbol}.`,
  }
}

/** What a dominant does, by how far above the chord it goes to it stands. */
const FUNCTIONS = [
  [7, 'V of'],
  [1, 'substitute V of'],
  [10, 'backdoor V of'],
] as const

export const functionQuestion = (rng: Rng): Made | null => {
  const next = anyChord(rng, ['maj7', '6'])
  const [up] = drawn(FUNCTIONS, rng)
  const dominant = chordOf(next.root.pc + up, '7')
  const job = jobFromNext(dominant, next)
  if (!job) return null
  const right = jobName(job)
  const [third, seventh] = guidesOf(dominant).map((n) => n.name)
  return {
    ask: `What is ${dominant.symbol} before ${next.symbol}?`,
    right,
    wrong: FUNCTIONS.filter(([other]) => other !== up).map(([other, name]) => ({
      text: `${name} ${next.root.name}`,
      why: `That would be ${chordOf(next.root.pc + other, '7').symbol}.`,
    })),
    proof: `Its root stands ${up} half ${up === 1 ? 'step' : 'steps'} above ${next.root.name}; its guide tones are ${third} and ${seventh}.`,
  }
}
