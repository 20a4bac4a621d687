import fc from 'fast-check'
import { type MidiEvent, writeMidi } from 'midi-file'
import { describe, expect, it } from 'vitest'
import { type Line, lineOf, midi, quantised, readChart, swungNotes, ticks } from '../core/index.ts'
import { readMidiLine } from './line-midi.ts'
import { writeLine } from './line-write.ts'

const sounds = (line: Line) => line.map((n) => [n.at, n.for, n.pitch])
const chart = readChart('| Dm7 | G7 |')
if (!chart.ok) throw new Error('the chart must read')

/** A file of tracks, each a list of [onset, length, pitch, channel from 1], at 480 ticks a quarter. */
const fileOf = (...tracks: readonly (readonly (readonly [number, number, number, number])[])[]): Uint8Array =>
  Uint8Array.from(
    writeMidi({
      header: { format: 1, numTracks: tracks.length, ticksPerBeat: 480 },
      tracks: tracks.map((notes) => {
        const moments = notes
          .flatMap(([at, length, noteNumber, channel]) => [
            { at, e: { type: 'noteOn', channel: channel - 1, noteNumber, velocity: 90 } as const },
            { at: at + length, e: { type: 'noteOff', channel: channel - 1, noteNumber, velocity: 0 } as const },
          ])
          .sort((a, b) => a.at - b.at || (a.e.type === 'noteOff' ? -1 : 1))
        let last = 0
        const events = moments.map(({ at, e }): MidiEvent => {
          const deltaTime = at - last
          last = at
          return { ...e, deltaTime }
        })
        return [...events, { deltaTime: 0, meta: true, type: 'endOfTrack' }]
      }),
    }),
  )

describe('a line from a MIDI file', () => {
  it('comes back as it was written, within its grid', () => {
    const steps = fc.constantFrom(240, 480, 960)
    fc.assert(
      fc.property(
        fc.array(fc.tuple(steps, fc.integer({ min: 40, max: 90 })), { minLength: 1, maxLength: 20 }),
        (all) => {
          let at = 0
          const line = lineOf(
            all.map(([length, pitch]) => {
              const from = at
              at += length
              return { at: ticks(from), for: ticks(length), pitch: midi(pitch) }
            }),
          )
          const file = writeLine('x', line, chart.value, 'midi')
          const read = readMidiLine(file.ok ? (file.value as Uint8Array) : new Uint8Array(), null, 'sixteenths')
          expect(read.ok && sounds(read.value.line)).toEqual(sounds(line))
        },
      ),
    )
  })
  it('takes the top of two hands, leaves the drums, and names what can be chosen instead', () => {
    const right = [
      [0, 240, 72, 1],
      [0, 240, 64, 1],
      [240, 240, 74, 1],
    ] as const
    const left = [[0, 480, 48, 2]] as const
    const drums = [[0, 100, 36, 10]] as const
    const read = readMidiLine(fileOf(left, right, drums), null, 'nearest')
    expect(read.ok && sounds(read.value.line)).toEqual([
      [0, 480, 72],
      [480, 480, 74],
    ])
    expect(read.ok && read.value.voices.map((v) => [v.track, v.channel, v.notes])).toEqual([
      [0, 2, 1],
      [1, 1, 3],
    ])
    expect(read.ok && read.value.leftOut.map((l) => l.what)).toEqual(['the drums', '1 lower note', '1 other voices'])
    const other = readMidiLine(fileOf(left, right, drums), 0, 'nearest')
    expect(other.ok && sounds(other.value.line)).toEqual([[0, 960, 48]])
  })
  it('tells triplets and swung eighths from sixteenths, beat by beat, and mends loose playing', () => {
    const raw = (at: number, length: number) => ({ at, for: length, pitch: 60 })
    const swung = [raw(8, 600), raw(652, 290), raw(955, 470), raw(1431, 480)]
    expect(sounds(quantised(swung, 'nearest'))).toEqual([
      [0, 480, 60],
      [480, 480, 60],
      [960, 480, 60],
      [1440, 480, 60],
    ])
    expect(quantised(swung, 'triplets').map((n) => n.at)).toEqual([0, 640, 960, 1280])
    const offBeats = [raw(630, 250), raw(1612, 200), raw(1930, 310), raw(2255, 300), raw(2570, 300)]
    expect(quantised(offBeats, 'nearest').map((n) => n.at)).toEqual([480, 1440, 1920, 2240, 2560])
    const writtenThere = [raw(0, 640), raw(640, 320), raw(960, 960)]
    expect(quantised(writtenThere, 'nearest').map((n) => n.at)).toEqual([0, 640, 960])
    const quarterTriplet = [raw(0, 620), raw(645, 620), raw(1275, 620), raw(1925, 900)]
    expect(quantised(quarterTriplet, 'nearest').map((n) => n.at)).toEqual([0, 640, 1280, 1920])
    const triplet = [raw(4, 300), raw(331, 300), raw(629, 300), raw(962, 900)]
    expect(quantised(triplet, 'nearest').map((n) => n.at)).toEqual([0, 320, 640, 960])
    expect(quantised(triplet, 'sixteenths').map((n) => n.at)).toEqual([0, 240, 720, 960])
    expect(quantised(triplet, 'none').map((n) => n.at)).toEqual([4, 331, 629, 962])
  })
  it('swung as a band would play it and read again, eighths and triplets are what they were', () => {
    const beat = fc.constantFrom<readonly number[]>([0], [0, 480], [0, 320, 640], [480], [0, 240, 480, 720])
    fc.assert(
      fc.property(
        fc.array(beat, { minLength: 1, maxLength: 12 }),
        fc.integer({ min: 62, max: 68 }),
        (beats, amount) => {
          const onsets = beats.flatMap((b, i) => b.map((at) => i * 960 + at))
          const even = onsets.map((at, i) => ({
            at,
            for: Math.min(480, (onsets[i + 1] ?? at + 480) - at),
            pitch: 60 + (i % 12),
          }))
          const eighths = even.filter((n) => n.at % 480 === 0 || n.at % 320 === 0)
          const played = swungNotes(eighths, () => ({ from: 0, beat: 960 }), { swung: 'eighths', amount })
          expect(quantised(played, 'nearest').map((n) => n.at)).toEqual(eighths.map((n) => n.at))
        },
      ),
    )
  })
  it('keeps exactly what stands where it can be written: 32nds, triplets of sixteenths, fives, and rests between', () => {
    const beats = fc.constantFrom(
      [0, 60, 120, 180, 240, 300, 360, 420],
      [0, 80, 160, 240, 320, 400],
      [0, 96, 192, 288, 384],
      [0, 160, 320],
      [0, 120, 240, 360],
      [0, 420],
    )
    fc.assert(
      fc.property(fc.array(fc.tuple(beats, fc.boolean()), { minLength: 1, maxLength: 8 }), (all) => {
        const notes = all.flatMap(([onsets, short], beat) =>
          onsets.map((at, i): [number, number, number, number] => {
            const until = onsets[i + 1] ?? 480
            return [beat * 480 + at, short ? (until - at) / 2 : until - at, 60 + i, 1]
          }),
        )
        const writable = notes.filter(([, length]) => (length * 2) % 40 === 0 || (length * 2) % 192 === 0)
        fc.pre(writable.length > 0)
        const read = readMidiLine(fileOf(writable), null, 'nearest')
        expect(read.ok && sounds(read.value.line)).toEqual(
          writable.map(([at, length, pitch]) => [at * 2, length * 2, pitch]),
        )
      }),
    )
  })
  it.each([
    [
      'before it ends',
      [
        ['on', 0],
        ['on', 480],
        ['off', 481],
        ['off', 960],
      ],
      [
        [0, 960, 60],
        [960, 960, 60],
      ],
    ],
    [
      'in the same moment, its end told after',
      [
        ['on', 0],
        ['on', 480],
        ['off', 480],
        ['off', 960],
      ],
      [
        [0, 960, 60],
        [960, 960, 60],
      ],
    ],
    [
      'and ended once for both',
      [
        ['on', 0],
        ['on', 480],
        ['off', 960],
      ],
      [
        [0, 960, 60],
        [960, 960, 60],
      ],
    ],
  ] as const)('a note struck again %s keeps its length', (_, moments, expected) => {
    let last = 0
    const events = moments.map(([what, at]): MidiEvent => {
      const deltaTime = at - last
      last = at
      const type = what === 'on' ? 'noteOn' : 'noteOff'
      return { deltaTime, type, channel: 0, noteNumber: 60, velocity: what === 'on' ? 90 : 0 }
    })
    const file = writeMidi({
      header: { format: 1, numTracks: 1, ticksPerBeat: 480 },
      tracks: [[...events, { deltaTime: 0, meta: true, type: 'endOfTrack' }]],
    })
    const read = readMidiLine(Uint8Array.from(file), null, 'nearest')
    expect(read.ok && sounds(read.value.line)).toEqual(expected)
  })
  it('any bytes are read or refused', () => {
    const good = fileOf([[0, 240, 60, 1]])
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 40 }), fc.nat(good.length), (junk, at) => {
        readMidiLine(junk, null, 'nearest')
        readMidiLine(Uint8Array.from([...good.slice(0, at), ...junk, ...good.slice(at)]), 3, 'none')
      }),
      { numRuns: 500 },
    )
    expect(readMidiLine(new Uint8Array(), null, 'nearest').ok).toBe(false)
  })
})
