import { describe, expect, it } from 'vitest'
import { instrument, type KeptStep, readChart } from '../core/index.ts'
import { readMusicXml } from './read-musicxml.ts'
import { writeRoute } from './routes.ts'

const read = readChart('title = Half Tide\nmetre = 4/4\n|: Dm7 | G7 Bb7 :| Cmaj7 |')
if (!read.ok) throw new Error('the chart must read')
const chart = read.value

const step = (bar: number, beat: number, chord: string, overlay: string, more: Partial<KeptStep> = {}): KeptStep => ({
  ...{ bar, beat, beats: 4, chord, overlay, device: 'minor pentatonic on 5', fade: 11, landing: 60, wished: 20 },
  ...more,
})
const STEPS = [
  step(1, 1, 'Dm7', 'A minor pentatonic'),
  step(2, 1, 'G7', 'Bb minor pentatonic'),
  step(2, 3, 'Bb7', 'Bb minor pentatonic', { carries: true }),
  step(3, 1, 'Dm7', 'F, "odd" name'),
  step(4, 3, 'Bb7', 'E & F#'),
]

describe('a route as a file', () => {
  it.each([
    ['eb', 'treble', 'Bm7', 'F# minor pentatonic', -9, 'G'],
    ['bb', 'treble', 'Em7', 'B minor pentatonic', -2, 'G'],
    ['f', 'alto', 'Am7', 'E minor pentatonic', -7, 'C'],
    ['concert', 'bass', 'Dm7', 'A minor pentatonic', null, 'F'],
  ] as const)('is a score for %s in %s clef that sounds as the chart', (id, clef, written, words, down, sign) => {
    const score = writeRoute('Slack water', STEPS, chart, 'musicxml', { instrument: instrument(id), clef })
    expect(score).toContain(`<root-step>${written[0]}</root-step>`)
    expect(score).toContain(`<words>${words}</words>`)
    expect(score).toContain(`<sign>${sign}</sign>`)
    expect(/<chromatic>(-?\d+)</.exec(score)?.[1] ?? null).toBe(down === null ? null : String(down))
    const back = readMusicXml(score)
    expect(back.ok && back.value.chart.bars.map((b) => b.spots.map((s) => s.chord.symbol))).toEqual(
      chart.bars.map((b) => b.spots.map((s) => s.chord.symbol)),
    )
  })
  it('is a line of text for each step', () => {
    expect(writeRoute('Slack water', STEPS, chart, 'text')).toBe(
      [
        'Slack water over Half Tide',
        '',
        'bar 1, beat 1, Dm7: A minor pentatonic (fade 11, landing 60)',
        'bar 2, beat 1, G7: Bb minor pentatonic (fade 11, landing 60)',
        'bar 2, beat 3, Bb7: Bb minor pentatonic, going on (fade 11, landing 60)',
        'bar 3, beat 1, Dm7: F, "odd" name (fade 11, landing 60)',
        'bar 4, beat 3, Bb7: E & F# (fade 11, landing 60)',
        '',
      ].join('\n'),
    )
    expect(writeRoute('By hand', [{ overlay: 'Em' }], null, 'text')).toBe('By hand\n\n: Em\n')
  })
  it('is a row of a table for each step, with its signs kept apart', () => {
    const rows = writeRoute('Slack water', STEPS, null, 'csv').trimEnd().split('\n')
    expect(rows[0]).toBe('bar,beat,beats,chord,overlay,device,fade,landing,wished,carries')
    expect(rows[1]).toBe('1,1,4,Dm7,A minor pentatonic,minor pentatonic on 5,11,60,20,')
    expect(rows[4]).toContain('"F, ""odd"" name"')
    expect(rows).toHaveLength(6)
  })
  it('is a score with the overlays as words above the chords, played out, which reads back as the chart', () => {
    const score = writeRoute('Slack water', STEPS, chart, 'musicxml')
    const back = readMusicXml(score)
    expect(back.ok && back.value.chart.bars.map((b) => b.spots.map((s) => s.chord.symbol))).toEqual(
      chart.bars.map((b) => b.spots.map((s) => s.chord.symbol)),
    )
    const words = [...score.matchAll(/<measure number="(\d+)"|<words>([^<]+)<\/words>/g)].map((m) => m[1] ?? m[2])
    expect(words).toEqual([
      '1',
      'A minor pentatonic',
      '2',
      'Bb minor pentatonic',
      '3',
      'F, &quot;odd&quot; name',
      '4',
      'E &amp; F#',
      '5',
    ])
    expect(score).toMatch(/E &amp; F#<\/words>\s*<\/direction-type>\s*<offset>1920<\/offset>/)
  })
  it('writes what is laid as notes, with degrees and exits under them, in bars that add up', () => {
    const score = writeRoute('Slack water', STEPS, chart, 'musicxml')
    const measures = score.split('<measure ').slice(1)
    const lengths = measures.map((m) =>
      [...m.matchAll(/<duration>(\d+)<\/duration>/g)].reduce((sum, d) => sum + Number(d[1]), 0),
    )
    expect(new Set(lengths)).toEqual(new Set([3840]))
    const notesOf = (m = '') =>
      [...m.matchAll(/<step>(\w)<\/step>(?:<alter>(-?\d)<\/alter>)?/g)].map((n) => `${n[1]}${n[2] ?? ''}`)
    // A minor pentatonic over Dm7: five notes and no more; the second half of bar 2 goes on, and is not written again.
    expect(notesOf(measures[0]?.replace(/<harmony>.*?<\/harmony>/gs, '').replace(/>\s+</g, '><'))).toEqual([
      'A',
      'C',
      'D',
      'E',
      'G',
    ])
    const under = [...(measures[0] ?? '').matchAll(/<text>([^<]+)<\/text>/g)].map((t) => t[1])
    expect(under).toEqual(['5', '+1 B', 'b7', '-1/2 B', '1', '= D', '9', '+1/2 F', '11', '= G'])
    expect(writeRoute('Nothing', [{ bar: 1, overlay: null }], chart, 'musicxml')).not.toContain('<pitch>')
  })
})
