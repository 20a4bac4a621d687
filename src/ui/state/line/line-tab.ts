import { fingeringOf, type HeardNote, midi } from '../../../core/index.ts'
import type { Tablature } from '../../figures/LineStaff.tsx'
import { tuningFrom } from '../../figures/neck.ts'
import type { OpenChart } from '../tune/open-chart.ts'

/** Where the player's own strings have the notes of a line. */
export const tablatureOf = (notes: readonly HeardNote[], { settings, instrument }: OpenChart): Tablature => {
  const tuning = tuningFrom(settings.tuning)
  const sounding = notes.map((n) => midi(n.pitch - instrument.written.semitones))
  return { frets: fingeringOf(sounding, tuning), strings: tuning.length }
}
