import {
  type Line,
  type LineAnalysis,
  namedNotes,
  type Overlay,
  reverse,
  type Tune,
  transposeOverlay,
  type Variant,
  type Variation,
  varyLine,
  type Weights,
} from '../../../core/index.ts'
import type { Address } from '../address/address.ts'
import type { VaryKind, VaryWhat } from '../address/parts/make.ts'
import type { LineRow } from '../kept/row-types.ts'
import type { OpenChart } from '../tune/open-chart.ts'
import { changeLine, keepLine } from './lines.ts'

const STEPS_IN_SEQUENCE = [1, -1] as const

/** What a kind of varying asks of the core; one kind may be several ways of doing it. */
const variantsOf = (kind: VaryKind, beat: number, overlay: Overlay | null): readonly Variant[] => {
  switch (kind) {
    case 'four ways':
      return [{ by: 'four ways' }]
    case 'rhythm':
      return (['1/4', '1/8', '1/16', '1/4t', '1/8t', '1/16t', '1/8.'] as const).map((value) => ({
        ...{ by: 'rhythm', value, start: null },
      }))
    case 'later':
      return [2, 3, 1].map((n) => ({ by: 'displace', ticks: Math.round(beat / n) }))
    case 'earlier':
      return [2, 3, 1].map((n) => ({ by: 'displace', ticks: -Math.round(beat / n) }))
    case 'octave':
      return [{ by: 'octave' }]
    case 'backwards':
      return [{ by: 'backwards' }]
    case 'upside down':
      return [{ by: 'inversion' }]
    case 'sequence':
      return [
        ...STEPS_IN_SEQUENCE.map((steps): Variant => ({ by: 'sequence', semitones: null, steps, times: 2 })),
        ...STEPS_IN_SEQUENCE.map((semitones): Variant => ({ by: 'sequence', semitones, steps: null, times: 2 })),
      ]
    case 'carried over':
      return overlay ? [{ by: 'carry', overlay }] : []
    case 'led to':
      return (['half below', 'half above', 'double below', 'scale above half below'] as const).map((approach) => ({
        ...{ by: 'approach', approach },
      }))
    case 'without approaches':
      return [{ by: 'approach', approach: 'none' }]
    case 'cut and landed':
      return [{ by: 'cut' }]
    case 'targets alone':
      return [{ by: 'targets' }]
  }
}

/** The notes that are varied, by place, both ends included; null where there are none. */
export const stretchOf = (what: VaryWhat, { audit }: LineAnalysis, note: number): readonly [number, number] | null => {
  const { notes } = audit
  const last = notes.length - 1
  const here = notes[Math.min(note, last)]
  if (last < 0 || !here) return null
  if (what === 'line') return [0, last]
  if (what === 'rest') return [here.n, last]
  const { length } = audit.timeline
  const chorus = (at: number): number => (length > 0 ? Math.floor(at / length) : 0)
  const inBar = notes.filter((n) => n.bar === here.bar && chorus(n.at) === chorus(here.at))
  return [inBar[0]?.n ?? 0, inBar.at(-1)?.n ?? last]
}

/** What becomes of a line (concert pitch), in the ways of the kind in view; those that change nothing are left out. */
export const variationsHere = (
  line: Line,
  [from, to]: readonly [number, number],
  address: Address,
  tune: Tune,
  openChart: OpenChart,
  weights: Weights,
): readonly Variation[] => {
  const { reading } = openChart.current ?? {}
  const overlay = reading ? transposeOverlay(reading.overlay, reverse(openChart.instrument.written)) : null
  const ground = { timeline: tune.timeline, weights }
  const same = JSON.stringify(line.map((n) => [n.at, n.for, n.pitch]))
  return variantsOf(address.vary, tune.timeline.beat, overlay)
    .flatMap((variant) => varyLine(line, from, to, variant, ground))
    .filter((v) => JSON.stringify(v.line.map((n) => [n.at, n.for, n.pitch])) !== same)
}

/** Puts a variation in the line's place. */
export const useVariation = (row: LineRow, { name, line }: Variation): void =>
  changeLine(row, { line: { notes: namedNotes(line) }, played: null }, `Varied: ${name}.`)

/** Keeps a line that was made of another one beside it. */
export const keepBeside = (name: string, line: Line): boolean => keepLine(name.slice(0, 200), namedNotes(line), 0)
