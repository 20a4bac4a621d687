import { type Grid, ok, type Result } from '../core/index.ts'
import { type Refusal, refuse } from '../formats/assemble.ts'
import { type ReadMidi, readMidiLine } from '../formats/line-midi.ts'
import { readAbcLine, readMusicXmlLine } from '../formats/line-read.ts'
import { fieldError, Problem } from './problems.ts'

const isMidi = (bytes: Uint8Array): boolean => String.fromCharCode(...bytes.slice(0, 4)) === 'MThd'

const readText = async (bytes: Uint8Array): Promise<Result<ReadMidi, Refusal>> => {
  let text: string
  try {
    text = new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return refuse('The file is neither MIDI nor text in UTF-8.')
  }
  const read = text.trimStart().startsWith('<') ? readMusicXmlLine(text) : await readAbcLine(text)
  return read.ok ? ok({ ...read.value, voices: [], chosen: 0, played: [] }) : read
}

/** What a file of a line holds, before anything is kept: its notes, the voices to choose from, and what was left out. */
export const lineFileAnswer = async (bytes: Uint8Array, name: string, voice: number | null, grid: Grid) => {
  const read = isMidi(bytes) ? readMidiLine(bytes, voice, grid) : await readText(bytes)
  if (!read.ok) throw new Problem('bad_file', read.error.why, [fieldError('file', read.error.why, name)])
  const { line, voices, chosen, leftOut, played } = read.value
  return {
    notes: line.map((n) => ({ at: n.at, for: n.for, pitch: n.pitch })),
    voices,
    chosen,
    leftOut,
    played: played.map((n) => ({ at: Math.round(n.at), for: Math.max(1, Math.round(n.for)), pitch: n.pitch })),
  }
}
