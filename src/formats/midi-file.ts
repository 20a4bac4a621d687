import { parseMidi } from 'midi-file'
import { ok, type Result, TICKS_PER_QUARTER } from '../core/index.ts'
import { type Refusal, refuse } from './assemble.ts'

type File = ReturnType<typeof parseMidi>
export type MidiTrackRead = File['tracks'][number]

/** A MIDI file with what its ticks are worth in ours; or why it is none. */
export const midiIn = (bytes: Uint8Array): Result<{ readonly file: File; readonly scale: number }, Refusal> => {
  let file: File
  try {
    file = parseMidi(bytes)
  } catch {
    return refuse('This is no MIDI file, or it is damaged.')
  }
  const { ticksPerBeat } = file.header
  if (!ticksPerBeat) return refuse('The file counts time in film frames, not in beats.')
  return ok({ file, scale: TICKS_PER_QUARTER / ticksPerBeat })
}
