import {
  beatTicks,
  type Chart,
  type Chord,
  DEFAULT_SCHOOL,
  DEFAULT_WEIGHTS,
  type KeptStep,
  type Midi,
  midi,
  type Overlay,
  placeOf,
  readOver,
  readOverlay,
  spotsOf,
  stepAt,
  transposeChart,
  transposeOverlay,
  UNISON,
  upwards,
} from '../core/index.ts'
import { type NoteAt, playedOut, type Reader, writeMusicXml } from './write-musicxml.ts'

/** Overlays begin at the first of their roots from here on, as written. */
const LOW = { treble: midi(58), bass: midi(38), alto: midi(48) } as const
/** Values a scale is written in, the longest that fits first, in ticks. */
const VALUES = [
  { value: 'quarter', ticks: 960 },
  { value: 'eighth', ticks: 480 },
  { value: '16th', ticks: 240 },
  { value: '32nd', ticks: 120 },
] as const
type Value = (typeof VALUES)[number]

/** An exit in ASCII: the way and the note it goes to. */
const WAYS = {
  held: '=',
  'half step down': '-1/2',
  'half step up': '+1/2',
  'whole step down': '-1',
  'whole step up': '+1',
} as const

const restsOf = (length: number, { value, ticks }: Value): readonly NoteAt[] => {
  const whole = Math.floor(length / ticks)
  const rest = (long: number, sign: NoteAt['sign']): NoteAt => ({
    ...{ for: long, note: null, ties: false, tied: false },
    ...(sign ? { sign } : {}),
  })
  const each = Array.from({ length: whole }, () => rest(ticks, { value, dots: 0, tuplet: null }))
  const left = length - whole * ticks
  return left > 0 ? [...each, rest(left, undefined)] : each
}

/** An overlay upward from its root over a chord, as fast as it must be to fit: under each note its degree and its exit. */
const scaleOver = (
  overlay: Overlay,
  { chord, next, length, low }: { readonly chord: Chord; readonly next: Chord | null; length: number; low: Midi },
): readonly NoteAt[] => {
  const { notes } = readOver(overlay, placeOf(chord, next, DEFAULT_SCHOOL), DEFAULT_WEIGHTS)
  const unit = VALUES.find((v) => v.ticks * overlay.notes.length <= length)
  if (!unit) return restsOf(length, VALUES[0])
  const up = [...overlay.notes].sort(
    (a, b) => ((a.pc - overlay.root.pc + 12) % 12) - ((b.pc - overlay.root.pc + 12) % 12),
  )
  const written = upwards(up, low).map((pitch): NoteAt => {
    const reading = notes.find((n) => n.note.pc === pitch.note.pc)
    const exit = reading?.exits[0]
    const under = [reading?.degree ?? '', ...(exit ? [`${WAYS[exit.how]} ${exit.to.name}`] : [])]
    const sign = { value: unit.value, dots: 0, tuplet: null } as const
    return { for: unit.ticks, note: pitch, ties: false, tied: false, sign, under }
  })
  return [...written, ...restsOf(length - unit.ticks * written.length, unit)]
}

/**
 * The chart as it is played, each step's overlay as words above its chord and as notes on the staff: in concert pitch,
 * or in the pitch and clef of the one who reads it.
 */
export const writeRouteScore = (
  concert: Chart,
  concertSteps: readonly KeptStep[],
  reader: Reader | null = null,
): string => {
  const written = reader?.instrument.written ?? UNISON
  const chart = transposeChart(concert, written)
  const steps = concertSteps.map((step) => {
    const read = step.overlay === null ? null : readOverlay(step.overlay)
    return read?.ok ? { ...step, overlay: transposeOverlay(read.value, written).name } : step
  })
  const spots = spotsOf(chart)
  const beats = new Map(chart.bars.map((b) => [b.number, beatTicks(b.metre)]))
  const out = playedOut(chart)
  const startsIn = (bar: number): readonly { readonly at: number; readonly step: KeptStep }[] =>
    steps
      .filter((s) => s.bar === bar && s.overlay !== null && !s.carries)
      .map((step) => ({ at: Math.round(((step.beat ?? 1) - 1) * (beats.get(bar) ?? 0)), step }))
  const notesIn = (bar: number): readonly NoteAt[] => {
    const starts = startsIn(bar)
    return spots
      .map((spot, i) => ({ spot, next: spots[i + 1]?.chord ?? null }))
      .filter(({ spot }) => spot.bar === bar)
      .flatMap(({ spot, next }) => {
        const end = spot.at + spot.length
        const inside = starts.filter((s) => s.at >= spot.at && s.at < end).map((s) => s.at)
        const cuts = [...new Set<number>([spot.at, ...inside])].sort((a, b) => a - b)
        return cuts.flatMap((at, k): readonly NoteAt[] => {
          const length = (cuts[k + 1] ?? end) - at
          const step = starts.some((s) => s.at === at)
            ? stepAt(steps, { bar, beat: 1 + at / beatTicks(spot.metre) })
            : undefined
          const read = step && step.overlay !== null ? readOverlay(step.overlay) : null
          if (!read?.ok || spot.chord.kind !== 'chord') return restsOf(length, VALUES[0])
          const goesTo = k < cuts.length - 1 ? spot.chord : next?.kind === 'chord' ? next : null
          return scaleOver(read.value, { chord: spot.chord, next: goesTo, length, low: LOW[reader?.clef ?? 'treble'] })
        })
      })
  }
  return writeMusicXml(out, {
    above: (i) => startsIn(out.bars[i]?.number ?? -1).map(({ at, step }) => ({ at, text: step.overlay ?? '' })),
    notes: (i) => notesIn(out.bars[i]?.number ?? -1),
    reader,
  })
}
