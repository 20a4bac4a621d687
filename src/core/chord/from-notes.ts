import { type Note, plainNote } from '../pitch/note.ts'
import { has, membersOf, setOf, shared, sizeOf, union } from '../pitch/pcset.ts'
import { type PcSet, type PitchClass, pitchClass } from '../pitch/units.ts'
import type { Chord, Quality } from './chord.ts'
import { readChord } from './parse.ts'

/** Qualities that notes are named by, the plainest first: of two that fit as well the earlier is meant. */
const QUALITIES = [
  ...['', 'm', '7', 'maj7', 'm7', '6', 'm6', 'm7b5', 'dim7', 'mMaj7', '7sus4', 'dim', '+', 'sus4', 'sus2'],
  ...['9', 'maj9', 'm9', '6/9', 'm6/9', '13', '7b9', '7#9', '7#11', 'maj7#11', '7#5', '7b13', 'maj7#5', '7b5'],
  ...['9sus4', '13sus4', 'm11', '13b9', '7b9b13', '7#9b13', '13#11', 'add9', 'madd9', 'maj13', 'mMaj9', '7sus4b9'],
] as const

interface Known {
  readonly name: string
  readonly quality: Quality
  readonly all: PcSet
}
const readKnown = (): readonly Known[] =>
  QUALITIES.map((name) => {
    const read = readChord(`C${name}`)
    if (!read.ok) throw new Error(`not a quality of ours: ${name}`)
    const { quality } = read.value
    return { name, quality, all: union(quality.ownSet, quality.statedSet) }
  })
let known: readonly Known[] | undefined
/** Read when they are first asked for: most who start the program never bring a file. */
const allKnown = (): readonly Known[] => {
  known ??= readKnown()
  return known
}

/** What speaks against a chord, by what is missing of it and what is too much. */
const AGAINST = {
  foreign: 4,
  guide: 2,
  plainFifth: 0.4,
  otherFifth: 2.5,
  stated: 1.5,
  root: 1.5,
  otherBass: 1.5,
  perPlace: 0.01,
} as const

const missing = ({ quality, all }: Known, sounding: PcSet): number => {
  let sum = 0
  for (const up of membersOf(all)) {
    if (has(sounding, up)) continue
    if (up === 0) sum += AGAINST.root
    else if (has(quality.guideSet, up)) sum += AGAINST.guide
    else if (has(quality.statedSet, up)) sum += AGAINST.stated
    else sum += up === 7 ? AGAINST.plainFifth : AGAINST.otherFifth
  }
  return sum
}

/** Notes that sound together, and the lowest of them. */
export interface Sounding {
  readonly set: PcSet
  readonly bass: PitchClass | null
}

/** A chord that notes may be, on a root: how it is written, and how much speaks against it. */
export interface NamedChord {
  readonly root: PitchClass
  readonly quality: string
  readonly against: number
}

const turned = (set: PcSet, root: number): PcSet => setOf(membersOf(set).map((pc) => pitchClass(pc - root)))

/** How much speaks against a chord on a root, where these notes sound. */
const againstOf = (quality: Known, place: number, { set, bass }: Sounding, root: number): number => {
  const sounding = turned(set, root)
  const foreign = sizeOf(sounding) - sizeOf(shared(sounding, quality.all))
  const bassOff = bass !== null && bass !== root ? AGAINST.otherBass : 0
  return foreign * AGAINST.foreign + missing(quality, sounding) + bassOff + place * AGAINST.perPlace
}

/** How many of these notes a chord that was named does not have. */
export const foreignTo = ({ root, quality }: NamedChord, set: PcSet): number => {
  const named = allKnown().find((k) => k.name === quality)
  const sounding = turned(set, root)
  return sizeOf(sounding) - (named ? sizeOf(shared(sounding, named.all)) : 0)
}

const bySounding = new Map<number, NamedChord>()

/** The chord that notes most likely are; null for fewer than three different ones. */
export const nameChord = (sounding: Sounding): NamedChord | null => {
  if (sizeOf(sounding.set) < 3) return null
  const key = sounding.set * 13 + (sounding.bass ?? 12)
  const found = bySounding.get(key) ?? likeliest(sounding)
  bySounding.set(key, found)
  return found
}

const likeliest = (sounding: Sounding): NamedChord => {
  let best: NamedChord = { root: pitchClass(0), quality: '', against: Infinity }
  for (let pc = 0; pc < 12; pc++)
    for (const [place, quality] of allKnown().entries()) {
      const against = againstOf(quality, place, sounding, pc)
      if (against < best.against) best = { root: pitchClass(pc), quality: quality.name, against }
    }
  return best
}

/** The chord of a name, its root and bass spelled by `spelled`, else the plain way; over another bass where that sounds. */
export const chordNamed = (
  { root, quality }: NamedChord,
  bass: PitchClass | null,
  spelled: (pc: PitchClass) => Note | null = () => null,
): Chord => {
  const noteOf = (pc: PitchClass): string =>
    (spelled(pc) ?? plainNote(pc, quality.startsWith('m') && !quality.startsWith('maj'))).name
  const under = bass !== null && bass !== root ? `/${noteOf(bass)}` : ''
  const read = readChord(`${noteOf(root)}${quality}${under}`)
  if (!read.ok) throw new Error(`a chord of our own does not read: ${quality}${under}`)
  return read.value
}
