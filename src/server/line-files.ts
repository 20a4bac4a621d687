import { type Grid, namedNotes, type Result } from '../core/index.ts'
import type { Refusal } from '../formats/assemble.ts'
import { readMidiLine } from '../formats/line-midi.ts'
import { openFile } from '../formats/open-file.ts'
import { readAbcLine } from '../formats/read-abc-line.ts'
import { readMusicXmlLine } from '../formats/read-musicxml-line.ts'
import type { ReadLine } from '../formats/voices.ts'
import { fieldError, Problem } from './problems.ts'

const readLine = async (bytes: Uint8Array, voice: number | null, grid: Grid): Promise<Result<ReadLine, Refusal>> => {
  const opened = openFile(bytes)
  if (!opened.ok) return opened
  const { kind, text } = opened.value
  if (kind === 'midi') return readMidiLine(bytes, voice, grid)
  return kind === 'xml' ? readMusicXmlLine(text, voice) : readAbcLine(text, voice)
}

/** What a file of a line holds, before anything is kept: its notes, the voices to choose from, and what was left out. */
export const lineFileAnswer = async (bytes: Uint8Array, name: string, voice: number | null, grid: Grid) => {
  const read = await readLine(bytes, voice, grid)
  if (!read.ok) throw new Problem('bad_file', read.error.why, [fieldError('file', read.error.why, name)])
  const { line, voices, chosen, leftOut, played } = read.value
  return {
    notes: namedNotes(line),
    voices,
    chosen,
    leftOut,
    played: played.map((n) => ({ at: Math.round(n.at), for: Math.max(1, Math.round(n.for)), pitch: n.pitch })),
  }
}
