import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { type Chart, keyName, metreName, midi, readTune, spotsOf, tonesOf } from '../core/index.ts'
import { readChartFile } from './files.ts'
import { type MidiTrack, midiFile, writeBandMidi } from './write-midi.ts'

const tune = (text: string) => {
  const read = readTune(text)
  if (!read.ok) throw new Error(JSON.stringify(read.error))
  return read.value
}
const track = (name: string, notes: readonly { at: number; for: number; pitch: number }[]): MidiTrack => ({
  ...{ name, channel: 0, program: null },
  notes: notes.map((n) => ({ ...n, pitch: midi(n.pitch), loudness: 0.7 })),
})
/** Each chord struck once, its root below. */
const blocks = (chart: Chart): MidiTrack => {
  let at = 0
  return track(
    'piano',
    spotsOf(chart).flatMap((s) => {
      const from = at
      at += s.length
      if (s.chord.kind !== 'chord') return []
      const pitches = tonesOf(s.chord).map((t) => 60 + t.note.pc)
      return [36 + s.chord.bass.pc, ...pitches].map((pitch) => ({ at: from, for: s.length - 20, pitch }))
    }),
  )
}
const proposed = async (bytes: Uint8Array) => {
  const read = await readChartFile(bytes)
  if (!read.ok) throw new Error(read.error.why)
  return read.value
}
const toldOf = (chart: Chart) =>
  chart.bars.map((b) => [
    ...[metreName(b.metre), b.key && keyName(b.key), b.section],
    ...b.spots.map((s) => `${s.at} ${s.chord.symbol} ${s.length}`),
  ])

describe('a chart proposed from a MIDI file', () => {
  it.each([
    'key = Eb\n== A\n| Ebmaj7 | Cm7 F7 | Bb7sus4 Bb7 | Eb6 |\n== B\n| Abm7 | Db9 | Gm7b5 C7b9 | Fm9 Bb13 |',
    'metre = 3/4\nkey = F# minor\ntempo = 92\n| F#m6 | G#m7b5:2 C#7 | 4/4 F#m7 B7 E7 A7 | Dmaj7 |',
    'key = C\n| C | F/A | G/B | Am7 |\nkey = Ab\n5/4 | Ab6 | Bbm7:3 Eb7 | Abmaj9 |',
    'metre = 6/8\nkey = D minor\npickup = 2\n| A7 | Dm6 | Gm6 A7 | Dm6 |',
  ])('chords struck as they are written come back as they are written: %j', async (text) => {
    const { chart } = tune(text)
    const back = await proposed(midiFile(chart, chart.tempo, [blocks(chart)]))
    expect(toldOf(back.chart)).toEqual(toldOf(chart))
    expect([back.chart.tempo, back.chart.pickup, back.format]).toEqual([chart.tempo, chart.pickup, 'midi'])
    expect(back.leftOut.map((l) => l.what)).toEqual(['the notes', 'how sure it is'])
  })

  it('of a band that comps and walks, most beats get the root and the kind of chord they were', async () => {
    const demo = new URL('../../demo/charts/', import.meta.url)
    let [right, all] = [0, 0]
    for (const name of readdirSync(demo)) {
      const own = tune(readFileSync(new URL(name, demo), 'utf8'))
      const back = await proposed(writeBandMidi(own, null, { feel: null, tempo: null }))
      const kinds = (chart: Chart) =>
        new Map(
          spotsOf(chart).flatMap(({ bar, at, length, chord }) =>
            Array.from(
              { length: Math.round(length / 480) },
              (_, i) =>
                [`${bar} ${at + i * 480}`, chord.kind === 'chord' ? `${chord.root.pc} ${chord.family}` : '-'] as const,
            ),
          ),
        )
      const theirs = kinds(back.chart)
      for (const [place, kind] of kinds(own.chart)) {
        all++
        if (theirs.get(place) === kind) right++
      }
    }
    expect(right / all).toBeGreaterThan(0.85)
  })

  it('of voices that have one note at a time, by what they make together', async () => {
    const { chart } = tune('key = G\n| G | C/E | D7 | G |')
    const { notes } = blocks(chart)
    const voices = [0, 1, 2, 3, 4].map((v) =>
      track(
        `voice ${v}`,
        notes.filter((n, _, all) => all.filter((m) => m.at === n.at).indexOf(n) === v),
      ),
    )
    expect(toldOf((await proposed(midiFile(chart, 120, voices))).chart)).toEqual(toldOf(chart))
  })

  it('what is no chord is a hole, and told', async () => {
    const { chart } = tune('| C | C | C |')
    const cluster = [60, 61, 62, 63, 64, 65].map((pitch) => ({ at: 3840, for: 3800, pitch }))
    const { notes } = blocks(tune('| C | N.C. | F |').chart)
    const back = await proposed(midiFile(chart, 120, [track('piano', [...notes, ...cluster])]))
    expect(spotsOf(back.chart).map((s) => s.chord.symbol)).toEqual(['C', '?', 'F'])
    expect(back.leftOut.at(-1)?.what).toBe('what sounds in bar 2')
  })

  it('a voice alone, drums alone and a damaged file make none, and say so', async () => {
    const { chart } = tune('| C |')
    const alone = track(
      'flute',
      [60, 64, 67, 72].map((pitch, i) => ({ at: i * 480, for: 480, pitch })),
    )
    const said = async (bytes: Uint8Array) => {
      const read = await readChartFile(bytes)
      return read.ok ? 'read' : [read.error.code, read.error.why]
    }
    expect(await said(midiFile(chart, 120, [alone]))).toEqual(['no_chords', expect.stringContaining('one at a time')])
    const drums = { ...blocks(chart), channel: 9 }
    expect((await said(midiFile(chart, 120, [drums])))[0]).toBe('no_chords')
    expect((await said(midiFile(chart, 120, [blocks(chart)]).slice(0, 40)))[0]).not.toBe('read')
  })
})
