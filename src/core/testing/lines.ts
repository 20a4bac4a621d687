import { type Audit, auditLine } from '../line/audit.ts'
import { type Line, lineOf } from '../line/line.ts'
import { readNote } from '../pitch/note.ts'
import { pitchOn } from '../pitch/register.ts'
import { ticks } from '../pitch/units.ts'
import type { School } from '../reading/school.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import { tuneOf } from '../tune.ts'
import { chartOfWords } from './routes.ts'

const EIGHTH = 480

/** For tests: `D4 F#4:2 .` are an eighth, two eighths, an eighth's rest; `unit` is another shortest value, in ticks. */
export const lineOfWords = (text: string, unit = EIGHTH): Line => {
  let at = 0
  return lineOf(
    text
      .trim()
      .split(/\s+/)
      .flatMap((word) => {
        const [, name, octave, count = '1'] = /^(?:([A-G][b#]*)(\d)|\.)(?::(\d+))?$/.exec(word) ?? []
        const from = at
        at += unit * Number(count)
        if (name === undefined) return []
        const read = readNote(name, 0)
        if (!read.ok) throw new Error(word)
        const note = {
          at: ticks(from),
          for: ticks(unit * Number(count)),
          pitch: pitchOn(read.value.note, Number(octave)).pitch,
        }
        return [{ ...note, note: read.value.note }]
      }),
  )
}

export const auditOfWords = (chart: string, line: string | Line, school: School = DEFAULT_SCHOOL): Audit => {
  const said = chartOfWords(chart, {}, false)
  const notes = typeof line === 'string' ? lineOfWords(line) : line
  return auditLine(notes, tuneOf(said.chart, [], { repeats: false, school }).timeline, DEFAULT_WEIGHTS)
}
