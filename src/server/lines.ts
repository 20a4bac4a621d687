import {
  type Audit,
  auditLine,
  type Line,
  type LineNote,
  lineOf,
  midi,
  type Override,
  pitchOn,
  readNote,
  type School,
  spelledAs,
  ticks,
  timelineOf,
  tuneOf,
  verdictOf,
  type Weights,
} from '../core/index.ts'
import { readAbcLine } from '../formats/read-abc-line.ts'
import { readMusicXmlLine } from '../formats/read-musicxml-line.ts'
import { fieldProblem } from './problems.ts'
import { chartAt } from './texts.ts'

/** A line as it is sent: as a file's text, or note by note in ticks, pitches by MIDI number or by name (`F#4`). */
export type SentLine =
  | { readonly abc: string }
  | { readonly musicxml: string }
  | { readonly notes: readonly SentNote[] }

/** A note as it is sent; a MIDI number may have its spelling beside it. */
export interface SentNote {
  readonly at: number
  readonly for: number
  readonly pitch: number | string
  readonly name?: string
}

export interface AuditAsked {
  readonly text: string
  readonly key: string
  readonly line: SentLine
  readonly overrides: readonly Override[]
  readonly school: School
  readonly also: School | null
  readonly weights: Weights
  readonly route: readonly { readonly bar: number; readonly beat: number; readonly fade: number }[] | null
}

const NAMED = /^([A-Ga-g][b#♭♯x]*)(-?\d)$/u

export const pitchAt = (pitch: number | string, path: string): Pick<LineNote, 'pitch' | 'note'> => {
  if (typeof pitch === 'number') return { pitch: midi(pitch) }
  const [, name, octave] = NAMED.exec(pitch.trim()) ?? []
  const read = name === undefined ? null : readNote(name.charAt(0).toUpperCase() + name.slice(1), 0)
  if (!read?.ok) throw fieldProblem(path, `“${pitch}” is no pitch.`, pitch, ['a MIDI number', 'a name such as F#4'])
  return pitchOn(read.value.note, Number(octave))
}

/** The line that was sent, `path` naming its field. */
export const lineFrom = async (sent: SentLine, path: string): Promise<Line> => {
  if ('notes' in sent)
    return lineOf(
      sent.notes.map((n, i) => {
        const { pitch, note } = pitchAt(n.pitch, `${path}.notes.${i}.pitch`)
        const spelled = n.name === undefined ? { note } : spelledAs(n.name, pitch)
        if (n.name !== undefined && !spelled.note)
          throw fieldProblem(`${path}.notes.${i}.name`, `“${n.name}” is no name of that pitch.`, n.name)
        return { at: ticks(n.at), for: ticks(n.for), pitch, ...spelled }
      }),
    )
  const [field, read] =
    'abc' in sent ? ['abc', await readAbcLine(sent.abc)] : ['musicxml', readMusicXmlLine(sent.musicxml)]
  if (!read.ok) throw fieldProblem(`${path}.${field}`, read.error.why, '', ['a tune with notes'])
  return read.value.line
}

/** Note numbers begin at 1, as a person counts. */
const numbered = (n: number): number => n + 1
const spanned = ({ from, to }: { readonly from: number; readonly to: number }) => ({
  from: numbered(from),
  to: numbered(to),
})

const verdict = (audit: Audit, school: School) =>
  verdictOf(audit, school).map(({ text, notes, tone }) => ({ text, notes: notes.map(numbered), tone }))

const landingOf = (audit: Audit, s: Audit['stretches'][number]) => {
  const on = s.landing && audit.notes[s.landing.on]
  return s.landing && on
    ? { how: s.landing.how, degree: on.degree, bar: on.bar, beat: on.beat, afterBeats: s.landing.afterBeats }
    : null
}

/** The fade a route plans where a note stands. */
const plannedAt = (route: AuditAsked['route'], bar: number, beat: number): number | null =>
  route?.filter((s) => s.bar === bar && s.beat <= beat + 1e-6).at(-1)?.fade ?? null

/** A line taken apart as the interface answers it. */
export const auditAnswer = async (asked: AuditAsked) => {
  const chart = chartAt(asked.text, asked.key)
  const line = await lineFrom(asked.line, 'line')
  const tune = tuneOf(chart, asked.overrides)
  const by = (school: School): Audit =>
    auditLine(line, timelineOf(tune.chart, tune.analysis, tune.overrides, school), asked.weights)
  const audit = by(asked.school)
  if (audit.notes.length === 0) throw fieldProblem('line', 'The line has no notes.', '', ['at least one note'])
  return {
    ...auditTold(audit, asked.school, asked.route),
    ...(asked.also ? { also: verdict(by(asked.also), asked.also) } : {}),
  }
}

/** What was found in a line, in the interface's shape. */
export const auditTold = (audit: Audit, school: School, route: AuditAsked['route'] = null) => ({
  notes: audit.notes.map((n, i) => ({
    ...{
      n: numbered(i),
      bar: n.bar,
      beat: n.beat,
      strong: n.strong,
      pitch: n.pitch,
      name: n.name.name,
      at: n.at,
      for: n.for,
    },
    ...{ degree: n.degree, role: n.role, fade: n.fade, job: audit.jobs[i] ?? '', ...(n.blue ? { blue: true } : {}) },
    ...(route ? { planned: plannedAt(route, n.bar, n.beat) } : {}),
  })),
  cells: audit.cells
    .filter((c) => c.overlay || c.how === 'enclosure')
    .map((c) => ({ ...spanned(c), overlay: c.overlay?.name ?? null, how: c.how })),
  sequences: audit.sequences.map((s) => ({
    ...spanned(s),
    length: s.length,
    by: s.by,
    times: s.times,
    tonal: s.tonal,
  })),
  groupings: audit.groupings.map((g) => ({ ...spanned(g), length: g.length, meetsAfterBeats: g.meetsAfterBeats })),
  readings: audit.readings.map((r) => ({ ...spanned(r), heard: r.heard, why: r.why, score: r.score })),
  stretches: audit.stretches.map((s) => ({
    ...spanned(s),
    peak: s.peak,
    mean: s.mean,
    landing: landingOf(audit, s),
  })),
  verdict: verdict(audit, school),
})
