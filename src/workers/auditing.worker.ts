import { expose } from 'comlink'
import { analyseLine, DEFAULT_SCHOOL, DEFAULT_WEIGHTS, midi, ticks, UNISON } from '../core/index.ts'
import { takeRead } from './taking.ts'

expose({ takeLineApart: analyseLine, readTake: takeRead })

const STEPS = [0, 2, 3, 5, 7, 8, 11, 12, 10, 6, 4, 1] as const

/** A line nobody asked about, so that tables and compiler are ready for the first that is. */
analyseLine({
  text: '| Dm7 G7 | Cmaj7 A7alt |',
  overrides: null,
  written: UNISON,
  school: DEFAULT_SCHOOL,
  weights: DEFAULT_WEIGHTS,
  notes: Array.from({ length: 128 }, (_, i) => ({
    at: ticks(i * 240),
    for: ticks(240),
    pitch: midi(60 + (STEPS[(i * 5) % STEPS.length] ?? 0)),
  })),
})
