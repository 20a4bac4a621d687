import { spawnSync } from 'node:child_process'
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { MusicXML } from '@stringsync/musicxml'
import midiParser from 'midi-parser-js'
import { type NoteEntry, parse, parseAbc, type Score } from 'musicxml-io'
import { afterAll, describe, expect, it } from 'vitest'
import { type Chart, type Line, lineOf, midi, readChart, ticks } from '../core/index.ts'
import { writeChart } from './files.ts'
import { type LineFormat, writeLine } from './line-write.ts'
import { heardOf, pieceOf, seeded } from './testing/pieces.ts'

const chartOf = (text: string): Chart => {
  const read = readChart(text)
  if (!read.ok) throw new Error(`${text}: ${JSON.stringify(read.error)}`)
  return read.value
}
const DEMO = new URL('../../demo/charts/', import.meta.url)
const demo = readdirSync(DEMO).map((f) => readFileSync(new URL(f, DEMO), 'utf8'))

const HEADS = [
  'key = F\n',
  'metre = 3/4\npickup = 1\n',
  'key = C# minor\nmetre = 5/4\n',
  'metre = 6/8\nfeel = swing\n',
  'key = Gb\nmetre = 7/8\n',
  'feel = bossa\nmetre = 2/2\n',
  'pickup = 0.5\n',
]
const CHORDS = [
  'Dm7',
  'G7alt',
  'Cmaj7',
  'F#m7b5',
  'B7(b9,b13)',
  'Ebmaj7#11',
  '(B|Am)',
  'N.C.',
  '?',
  'G7sus4/D',
  'Bbb7',
  'A6/9',
]
const random = seeded(4)
const pick = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)] as T
/** Charts of all sorts: pickups, sections, repeats with endings, metres and keys on the way. */
const charts: readonly string[] = [
  ...demo,
  ...Array.from({ length: 20 }, (_, i) => {
    const bar = (): string => (random() < 0.7 ? pick(CHORDS) : `${pick(CHORDS)} ${pick(CHORDS)}`)
    const body = [
      `== A & <“ß”> ${i}\n|: ${bar()} | ${bar()} |1. ${bar()} :|2. ${bar()} |`,
      `| ${bar()} | ${pick(['', '3/4 ', '7/8 ', '4/4 '])}${bar()} | ${bar()} |`,
      ...(random() < 0.5 ? [`key = Bb\n== B\n|: ${bar()} | % :|`] : []),
    ]
    return `title = Rope ${i} & <“ß”> 50 %\n${pick(HEADS)}${body.join('\n')}\n`
  }),
]
/** Lines of all values, triplets and fives among them, each over a chart of its own. */
const lines: readonly { readonly line: Line; readonly chart: Chart; readonly name: string }[] = Array.from(
  { length: 20 },
  (_, i) => {
    const notes = heardOf(pieceOf(300 + i, true)).map(([at, length, pitch]) => ({
      ...{ at: ticks(at), for: ticks(length), pitch: midi(pitch) },
    }))
    return { line: lineOf(notes), chart: chartOf(charts[6 + i] as string), name: `Rope ${i} & <“ß”> 50 %` }
  },
)
const wrote = (i: number, format: LineFormat): string | Uint8Array => {
  const { line, chart, name } = lines[i] as (typeof lines)[number]
  const file = writeLine(name, line, chart, format)
  if (!file.ok) throw new Error(file.error.why)
  return file.value
}
const soundsOf = (line: Line) => line.map((n) => [n.at, n.for, n.pitch])

const STEPS = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 } as const
/** What a score sounds, read by another package: moments in ticks, ties joined. */
const heardBy = ({ parts }: Score) => {
  const heard: [number, number, number][] = []
  let [at, divisions, goesOn] = [0, 1, false]
  for (const { attributes, entries } of parts[0]?.measures ?? []) {
    divisions = attributes?.divisions ?? divisions
    for (const e of entries) {
      if (e.type !== 'note') continue
      const { pitch, duration, ties, tie }: NoteEntry = e
      const length = (duration * 960) / divisions
      const last = heard.at(-1)
      if (pitch && goesOn && last) last[1] += length
      else if (pitch) heard.push([at, length, 12 * (pitch.octave + 1) + STEPS[pitch.step] + (pitch.alter ?? 0)])
      goesOn = (ties ?? (tie ? [tie] : [])).some((t) => t.type === 'start')
      at += length
    }
  }
  return heard.map((n) => n.map(Math.round))
}

/** What a MIDI file sounds, read by another parser, in ticks of 960 a quarter. */
const heardInMidi = (bytes: Uint8Array) => {
  const { track, timeDivision } = midiParser.parse(bytes)
  const heard: [number, number, number][] = []
  for (const { event } of track) {
    const open = new Map<number, number>()
    let at = 0
    for (const { deltaTime, type, data } of event) {
      at += deltaTime
      if ((type !== 9 && type !== 8) || !Array.isArray(data)) continue
      const [pitch = 0, velocity = 0] = data
      const from = open.get(pitch)
      if (from !== undefined) heard.push([from, at - from, pitch])
      open.delete(pitch)
      if (type === 9 && velocity > 0) open.set(pitch, at)
    }
  }
  const scale = 960 / Number(timeDivision)
  return heard
    .map(([at, length, pitch]) => [at * scale, length * scale, pitch])
    .sort((a, b) => (a[0] ?? 0) - (b[0] ?? 0))
}

const flat = (xml: string): string =>
  xml
    .replace(/>\s+</g, '>\n<')
    .replace(/<([\w-]+)([^<>]*)><\/\1>/g, '<$1$2/>')
    .trim()
/** Another package puts the document together again by the rules of the format: what is not valid it replaces. */
const asValid = (xml: string): string => flat(MusicXML.parse(xml).serialize())

describe('what is written is read by others', () => {
  it.each(charts.map((text) => [chartOf(text).title, text]))('chart %s: valid MusicXML', (_, text) => {
    const xml = writeChart(chartOf(text), text, 'musicxml')
    expect(asValid(xml)).toBe(flat(xml))
  })
  it.each(lines.map((_, i) => i))('line %i: valid MusicXML, and note for note in three formats', (i) => {
    const sounds = soundsOf((lines[i] as (typeof lines)[number]).line)
    const xml = String(wrote(i, 'musicxml'))
    expect(asValid(xml)).toBe(flat(xml))
    expect(heardBy(parse(xml))).toEqual(sounds)
    expect(heardBy(parseAbc(String(wrote(i, 'abc'))))).toEqual(sounds)
    expect(heardInMidi(wrote(i, 'midi') as Uint8Array)).toEqual(sounds)
  })
  it('and what is not valid would be seen', () => {
    const xml = String(wrote(0, 'musicxml'))
    for (const [right, wrong] of [
      ['<type>eighth</type>', '<type>eigth</type>'],
      ['<duration>', '<duration>x'],
      ['<step>', '<step>H'],
    ] as const)
      expect(asValid(xml.replace(right, wrong))).not.toBe(flat(xml.replace(right, wrong)))
  })
})

/** A program of this machine's, where it is there. */
const has = (program: string): boolean => {
  const isThere = spawnSync('which', [program]).status === 0
  if (!isThere) console.info(`${program} is not on this machine: what it would read is not tried.`)
  return isThere
}
const dir = mkdtempSync(join(tmpdir(), 'crossfade-others-'))
afterAll(() => rmSync(dir, { recursive: true, force: true }))
const run = (
  program: string,
  ...args: readonly string[]
): { readonly said: string; readonly status: number | null } => {
  const { stdout, stderr, status } = spawnSync(program, args, { cwd: dir, encoding: 'utf8' })
  return { said: `${stdout}\n${stderr}`, status }
}
const errorsIn = (said: string, known: RegExp): readonly string[] =>
  said.split('\n').filter((row) => /error/i.test(row) && !known.test(row))

/** Names of chords it does not play; the notes stand all the same. */
const UNKNOWN_NAME = /chord|guitar/i
describe.skipIf(!has('abc2midi'))('Debian’s abc2midi', () => {
  it.each(lines.map((_, i) => i))('plays line %i note for note', (i) => {
    writeFileSync(join(dir, 'line.abc'), String(wrote(i, 'abc')).replace(/^K:.*$/m, '$&\n%%MIDI gchordoff'))
    const { said, status } = run('abc2midi', 'line.abc', '-o', 'line.mid')
    expect([status, errorsIn(said, UNKNOWN_NAME)]).toEqual([0, []])
    const heard = heardInMidi(readFileSync(join(dir, 'line.mid'))).map(([at = 0, , pitch]) => [
      Math.round(at / 40) * 40,
      pitch,
    ])
    expect(heard).toEqual(soundsOf((lines[i] as (typeof lines)[number]).line).map(([at, , pitch]) => [at, pitch]))
  })
})
describe.skipIf(!has('abcm2ps'))('Debian’s abcm2ps', () => {
  it.each([
    ...charts.map((text, i) => [`chart ${i}`, writeChart(chartOf(text), text, 'abc')]),
    ...lines.map((_, i) => [`line ${i}`, String(wrote(i, 'abc'))]),
  ])('engraves %s', (_, abc) => {
    writeFileSync(join(dir, 'tune.abc'), abc)
    const { said, status } = run('abcm2ps', '-O', 'tune.ps', 'tune.abc')
    expect([status, errorsIn(said, /^$/)]).toEqual([0, []])
  })
})
describe.skipIf(!has('musicxml2ly'))('Debian’s reader of MusicXML', () => {
  it.each([
    ...charts.map((text, i) => [`chart ${i}`, writeChart(chartOf(text), text, 'musicxml')]),
    ...lines.map((_, i) => [`line ${i}`, String(wrote(i, 'musicxml'))]),
  ])('reads %s', (_, xml) => {
    writeFileSync(join(dir, 'score.musicxml'), xml)
    const { said, status } = run('musicxml2ly', '-o', 'score.ly', 'score.musicxml')
    expect([status, errorsIn(said, /^$/)]).toEqual([0, []])
  })
})
