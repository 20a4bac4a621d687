import { fingeringOf, type HeardNote, midi } from '../../core/index.ts'
import type { Tablature } from '../figures/LineStaff.tsx'
import { tuningFrom } from '../figures/neck.ts'
import type { Desk } from './desk.ts'

/** Where the player's own strings have the notes of a line. */
export const tablatureOf = (notes: readonly HeardNote[], { settings, instrument }: Desk): Tablature => {
  const tuning = tuningFrom(settings.tuning)
  const sounding = notes.map((n) => midi(n.pitch - instrument.written.semitones))
  return { frets: fingeringOf(sounding, tuning), strings: tuning.length }
}
