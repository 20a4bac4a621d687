import { type Chord, tonesOf } from '../chord/chord.ts'
import type { Overlay } from '../material/overlay.ts'
import { upwards } from '../pitch/register.ts'
import { midi, pitchClass } from '../pitch/units.ts'
import type { Reading } from '../reading/read.ts'
import { topOf } from '../reading/roughness.ts'
import { drawn, type Rng } from './drawing.ts'
import type { Choice, Made } from './quiz.ts'
import { anyChord, chordOf, degreeQuestion } from './quiz-degrees.ts'
import { MATERIALS, overlayOver, TYPES } from './quiz-overlays.ts'

const LOW = midi(60)
const run = ({ notes }: Overlay): readonly number[] => upwards(notes, LOW).map((p) => p.pitch)
const over = (chord: Chord, pitches: readonly number[]) => ({ chord: chord.symbol, pitches })
const anyReading = (chord: Chord, rng: Rng): Reading =>
  overlayOver(Math.floor(rng() * 12), drawn(MATERIALS, rng), chord)

export const degreeByEar = (rng: Rng): Made => {
  const chord = anyChord(rng)
  const up = 1 + Math.floor(rng() * 11)
  return {
    ...degreeQuestion(chord, up),
    ask: `Which degree sounds over ${chord.symbol}?`,
    hear: [over(chord, [topOf(pitchClass(chord.root.pc + up))])],
  }
}

export const overlayByEar = (rng: Rng): Made => {
  const chord = anyChord(rng, TYPES)
  const reading = anyReading(chord, rng)
  const { overlay } = reading
  const others = Array.from({ length: 12 }, () => anyReading(chord, rng)).filter((r) => r.overlay.set !== overlay.set)
  const lacking = (r: Reading): string =>
    r.notes.find((n) => !overlay.notes.some((o) => o.pc === n.note.pc))?.degree ?? ''
  return {
    ask: `Which of these sounds over ${chord.symbol}?`,
    right: overlay.name,
    wrong: others.map((r) => ({
      text: r.overlay.name,
      why:
        lacking(r) === ''
          ? `${r.overlay.name} has fewer notes.`
          : `The ${lacking(r)} of ${r.overlay.name} did not sound.`,
    })),
    proof: `${reading.notes.map((n) => `${n.note.name} ${n.degree}`).join(', ')}.`,
    hear: [over(chord, run(overlay))],
  }
}

/** How far out, as an ear sorts it; what lies near a border is not asked. */
const BANDS = [
  [0, 18, 'in'],
  [30, 48, 'coloured'],
  [62, 100, 'out'],
] as const

export const howFarByEar = (rng: Rng): Made | null => {
  const chord = anyChord(rng, TYPES)
  const reading = anyReading(chord, rng)
  const band = BANDS.find(([least, most]) => reading.fade >= least && reading.fade <= most)
  if (!band) return null
  return {
    ask: `How far out is what sounds over ${chord.symbol}?`,
    right: band[2],
    wrong: BANDS.filter((b) => b !== band).map(
      ([least, most, text]): Choice => ({
        text,
        why: `That would be a fade of ${least} to ${most}; this is ${reading.fade}.`,
      }),
    ),
    proof: `${reading.overlay.name}: fade ${reading.fade}; the worst note is ${reading.worst.note.name}, the ${reading.worst.degree}.`,
    hear: [over(chord, run(reading.overlay))],
  }
}

const LANDS = 'it lands'
const LOOSE = 'it does not land'

/** A short line over a dominant whose last note comes into the next chord: a half step to a tone of it, or past it. */
export const landedByEar = (rng: Rng): Made | null => {
  const next = anyChord(rng, ['maj7', 'm7', '6'])
  const dominant = chordOf(next.root.pc + 7, '7')
  const tones = tonesOf(next).filter((t) => !t.stated)
  const target = drawn(tones, rng)
  const isLanding = rng() < 0.5
  const by = rng() < 0.5 ? 1 : -1
  const goal = topOf(target.note.pc)
  const last = isLanding ? goal : goal + by
  // What misses stands between the tones of the chord, and nobody would call it one of them.
  if (!isLanding && tones.some((t) => t.note.pc === pitchClass(last))) return null
  const before = isLanding ? goal + by : goal + 3 * by
  const { notes } = overlayOver(dominant.root.pc + 1, 'minor pentatonic', dominant).overlay
  const line = [
    ...upwards(notes, LOW)
      .map((p) => p.pitch as number)
      .slice(0, 4),
    before,
  ]
  const where = `${next.symbol}`
  return {
    ask: `Did that line land on ${where}?`,
    right: isLanding ? LANDS : LOOSE,
    wrong: [
      isLanding
        ? { text: LOOSE, why: `Its last note is the ${target.degree} of ${where}, a half step from the one before.` }
        : {
            text: LANDS,
            why: `Its last note is no tone of ${where}: it stands a half step beside the ${target.degree}.`,
          },
    ],
    proof: isLanding
      ? `A half step ${by === 1 ? 'down' : 'up'} into ${target.note.name}, the ${target.degree}.`
      : `It stops a half step ${by === 1 ? 'above' : 'below'} ${target.note.name}, the ${target.degree}.`,
    hear: [over(dominant, line), over(next, [last])],
  }
}

/** Nearer than this no ear tells which is further out. */
const APART = 25

export const furtherOutByEar = (rng: Rng): Made | null => {
  const chord = anyChord(rng, TYPES)
  const [a, b] = [anyReading(chord, rng), anyReading(chord, rng)]
  if (Math.abs(a.fade - b.fade) < APART) return null
  const isFirst = a.fade > b.fade
  const words = (first: boolean): string => (first ? 'the first' : 'the second')
  return {
    ask: `Which is further out over ${chord.symbol}, the first or the second?`,
    right: words(isFirst),
    wrong: [
      {
        text: words(!isFirst),
        why: `Its fade is ${Math.min(a.fade, b.fade)}, the other's ${Math.max(a.fade, b.fade)}.`,
      },
    ],
    proof: `First ${a.overlay.name}, fade ${a.fade}; then ${b.overlay.name}, fade ${b.fade}.`,
    hear: [over(chord, run(a.overlay)), over(chord, run(b.overlay))],
  }
}
