import fc from 'fast-check'
import { parseMidi } from 'midi-file'
import { describe, expect, it } from 'vitest'
import {
  barTicks,
  type Chart,
  DEFAULT_SCHOOL,
  type KeptOverride,
  type Line,
  lineOf,
  midi,
  readChart,
  readTune,
  SCHOOL_CHOICES,
  type School,
  type SchoolSetting,
  spelledAs,
  ticks,
  tuneOf,
} from '../core/index.ts'
import { writeLine } from './line-write.ts'
import { readAbcLine } from './read-abc-line.ts'
import { readMusicXml } from './read-musicxml.ts'
import { readMusicXmlLine } from './read-musicxml-line.ts'
import { writeBandMidi } from './write-midi.ts'

const chartOf = (text: string) => {
  const read = readChart(text)
  if (!read.ok) throw new Error(text)
  return read.value
}
const CHART = chartOf('tempo = 90\n| Dm7 G7 | Cmaj7 | A7alt |')
const PICKUPS = ['pickup = 1\n| G7 | Cmaj7 | F7 |', 'metre = 3/4\npickup = 1.5\n| D7 | Gm7 | C7 |'].map(chartOf)
const WALTZ = chartOf('metre = 3/4\n| Em7 | A7 |')
const sounds = (line: Line) => line.map((n) => [n.at, n.for, n.pitch])

/** Notes one after another on a grid of sixteenths, or three to an eighth's pair; overlaps are none. */
const lines = fc
  .array(
    fc.record({
      rest: fc.constantFrom(0, 0, 240, 480),
      for: fc.constantFrom(240, 480, 720, 960, 1920, 'triplet'),
      pitch: fc.integer({ min: 36, max: 96 }),
    }),
    { minLength: 1, maxLength: 24 },
  )
  .map((all) => {
    let at = 0
    return lineOf(
      all.flatMap((n) => {
        const from = n.for === 'triplet' ? Math.ceil((at + n.rest) / 960) * 960 : at + n.rest
        const each = n.for === 'triplet' ? [320, 320, 320] : [n.for as number]
        at = from + each.reduce((a, b) => a + b, 0)
        return each.map((d, i) => ({ at: ticks(from + i * 320), for: ticks(d), pitch: midi(n.pitch + i) }))
      }),
    )
  })

const wrote = (...asked: Parameters<typeof writeLine>): string | Uint8Array => {
  const written = writeLine(...asked)
  if (!written.ok) throw new Error(written.error.why)
  return written.value
}

describe('a line through a file', () => {
  it('keeps pitch and rhythm through MusicXML and ABC, whatever bar lines it crosses; chords stay', async () => {
    await fc.assert(
      fc.asyncProperty(lines, fc.constantFrom(CHART, WALTZ, ...PICKUPS), async (line, chart) => {
        const xml = String(wrote('Wake', line, chart, 'musicxml'))
        const back = readMusicXmlLine(xml)
        expect(back.ok && sounds(back.value.line)).toEqual(sounds(line))
        const abc = String(wrote('Wake', line, chart, 'abc'))
        const again = await readAbcLine(abc)
        expect(again.ok && sounds(again.value.line)).toEqual(sounds(line))
        const chords = readMusicXml(xml)
        expect(
          chords.ok &&
            chords.value.chart.bars.slice(0, chart.bars.length).map((b) => b.spots.map((s) => s.chord.symbol)),
        ).toEqual(chart.bars.map((b) => b.spots.map((s) => s.chord.symbol)))
      }),
      { numRuns: 150, seed: 3 },
    )
  })
  const FIVES: readonly (readonly [number, number])[] = [
    ...[0, 1, 2, 3, 4].map((i) => [i * 192, 192] as const),
    ...[0, 2, 3].map((i) => [960 + i * 192, (i === 0 ? 2 : i === 2 ? 1 : 2) * 192] as const),
    ...[[1920, 960 + 384] as const, [1920 + 960 + 384, 576] as const],
    ...[[3840, 480] as const, [3840 + 480, 480 + 192] as const, [3840 + 960 + 192, 160] as const],
  ]
  const lineAt = (notes: readonly (readonly [number, number])[]): Line =>
    lineOf(notes.map(([at, length], i) => ({ at: ticks(at), for: ticks(length), pitch: midi(60 + i) })))
  const lengthsIn = (xml: string) =>
    xml
      .split('<measure')
      .slice(1)
      .map((m) => [...m.matchAll(/<duration>(\d+)</g)].reduce((sum, [, n]) => sum + Number(n), 0))

  it.each(['4/4', '2/2', '5/4'])(
    'keeps fives in the time of four, alone and tied, in MusicXML and in ABC (%s)',
    async (metre) => {
      const over = chartOf(`metre = ${metre}\n| Dm7 | G7 |`)
      const line = lineAt(FIVES.slice(0, 10))
      const xml = String(wrote('Fives', line, over, 'musicxml'))
      const back = readMusicXmlLine(xml)
      expect(back.ok && sounds(back.value.line)).toEqual(sounds(line))
      const abc = String(wrote('Fives', line, over, 'abc'))
      expect(abc).toContain('(5:4:5')
      const again = await readAbcLine(abc)
      expect(again.ok && sounds(again.value.line)).toEqual(sounds(line))
    },
  )
  it('writes lengths that exist, whatever the line is like: every note has a type, every bracket closes', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 15_000 }), fc.integer({ min: 1, max: 3000 })), { minLength: 1 }),
        fc.nat({ max: PICKUPS.length + 1 }),
        (notes, which) => {
          const chart = [CHART, WALTZ, ...PICKUPS][which] as Chart
          const line = lineAt([...FIVES, ...notes])
          const xml = String(wrote('Any', line, chart, 'musicxml'))
          expect(xml.match(/<type>/g)?.length).toBe(xml.match(/<note>/g)?.length)
          expect(xml.match(/<tuplet type="start"/g)?.length).toBe(xml.match(/<tuplet type="stop"/g)?.length)
          const [first, ...rest] = lengthsIn(xml)
          expect(first).toBe(chart.pickup > 0 ? chart.pickup * 960 : barTicks(chart.metre))
          expect(new Set(rest)).toEqual(new Set(rest.length > 0 ? [barTicks(chart.metre)] : []))
          const music = String(wrote('Any', line, chart, 'abc')).split('K:C\n')[1] ?? ''
          for (const [, under] of music.replace(/"[^"]*"/g, '').matchAll(/\/(\d+)/g))
            expect([2, 4, 8]).toContain(Number(under))
        },
      ),
      { numRuns: 200 },
    )
  })
  it.each(PICKUPS)('stands in its bars over a pickup (%#)', (chart) => {
    const whole = barTicks(chart.metre)
    const up = chart.pickup * 960
    const line = lineOf(
      [0, up, up + whole, up + 2 * whole].map((at, i) => ({ at: ticks(at), for: ticks(480), pitch: midi(60 + i) })),
    )
    const xml = String(wrote('Wake', line, chart, 'musicxml'))
    const measures = xml.split('<measure').slice(1)
    expect(measures[0]).toContain('implicit="yes"')
    for (const [i, step] of ['C', 'D', 'D', 'E'].entries()) {
      expect(measures[i]).toContain(`<step>${step}</step>`)
      const lengths = [...(measures[i] ?? '').matchAll(/<duration>(\d+)</g)].map(([, n]) => Number(n))
      expect(lengths.reduce((a, b) => a + b, 0)).toBe(i === 0 ? up : whole)
    }
    const abc = String(wrote('Wake', line, chart, 'abc'))
      .split('\n')
      .filter((row) => row.endsWith('|'))
    expect(abc.map((row) => row.match(/[=_^][A-Ga-g]/g)?.length)).toEqual([1, 1, 1, 1])
    let at = 0
    const bars = (parseMidi(wrote('Wake', line, chart, 'midi') as Uint8Array).tracks[0] ?? []).flatMap((e) => {
      at += e.deltaTime
      return e.type === 'timeSignature' ? [[at, (e.numerator * 4 * 960) / e.denominator]] : []
    })
    expect(bars).toEqual([
      [0, up],
      [up, whole],
    ])
  })
  it('keeps its spelling in every format', async () => {
    const line = lineOf(
      ['Cb', 'E#', 'Bbb', 'F##'].map((name, i) => {
        const pitch = [71, 65, 69, 67][i] ?? 0
        return { at: ticks(i * 480), for: ticks(480), pitch: midi(pitch), ...spelledAs(name, pitch) }
      }),
    )
    const names = (read: Line) => read.map((n) => n.note?.name)
    const abc = await readAbcLine(String(wrote('Wake', line, CHART, 'abc')))
    const xml = readMusicXmlLine(String(wrote('Wake', line, CHART, 'musicxml')))
    for (const back of [abc, xml]) {
      expect(back.ok && names(back.value.line)).toEqual(['Cb', 'E#', 'Bbb', 'F##'])
      expect(back.ok && sounds(back.value.line)).toEqual(sounds(line))
    }
    expect(wrote('Wake', line, CHART, 'csv')).toContain('0,480,71,Cb,5')
  })
  it('is a MIDI file with its key, sections and names', () => {
    const chart = chartOf('title = Båt ♭\nkey = Eb minor\n== A\n| Ebm7 |\n== B\n| Ab7 |')
    const line = lineOf([{ at: ticks(0), for: ticks(480), pitch: midi(63) }])
    const [track = []] = parseMidi(wrote('Båt ♭', line, chart, 'midi') as Uint8Array).tracks
    expect(track).toContainEqual(expect.objectContaining({ type: 'keySignature', key: -6, scale: 1 }))
    expect(track).toContainEqual(expect.objectContaining({ type: 'trackName', text: 'Båt b' }))
    expect(track.flatMap((e) => (e.type === 'marker' ? [e.text] : []))).toEqual(['A', 'B'])
  })
  it('over bars of other metres and keys keeps its bars in every format, and says what they change', async () => {
    const chart = chartOf('key = C\npickup = 1\n| G7 | 3/4 C6 |\nkey = Ab\n6/8 | Ab6 | 4/4 Db6 |')
    const line = lineOf(
      [0, 960, 3840, 6720, 6720 + 960].map((at, i) => ({ at: ticks(at), for: ticks(480), pitch: midi(60 + i) })),
    )
    const file = wrote('Wake', line, chart, 'midi') as Uint8Array
    let at = 0
    const said = (parseMidi(file).tracks[0] ?? []).flatMap((e) => {
      at += e.deltaTime
      if (e.type === 'timeSignature') return [[at, `${e.numerator}/${e.denominator}`]]
      return e.type === 'keySignature' ? [[at, e.key]] : []
    })
    expect(said).toEqual([
      ...[
        [0, '1/4'],
        [0, 0],
        [960, '3/4'],
        [3840, '6/8'],
        [3840, -4],
        [6720, '4/4'],
      ],
    ])
    const xml = String(wrote('Wake', line, chart, 'musicxml'))
    const lengths = xml
      .split('<measure')
      .slice(1)
      .map((m) => [...m.matchAll(/<duration>(\d+)</g)].reduce((sum, d) => sum + Number(d[1]), 0))
    expect(lengths).toEqual([960, 2880, 2880, 3840])
    expect([...xml.matchAll(/<beats>(\d+)</g)].map((m) => m[1])).toEqual(['4', '3', '6', '4'])
    for (const back of [await readAbcLine(String(wrote('Wake', line, chart, 'abc'))), readMusicXmlLine(xml)])
      expect(back.ok && sounds(back.value.line)).toEqual(sounds(line))
  })
  it('is a MIDI file with its tempo and its notes where they are', () => {
    const line = lineOf([
      { at: ticks(480), for: ticks(480), pitch: midi(62) },
      { at: ticks(960), for: ticks(320), pitch: midi(65) },
    ])
    const { header, tracks } = parseMidi(wrote('Wake', line, CHART, 'midi') as Uint8Array)
    expect(header).toMatchObject({ format: 0, ticksPerBeat: 960 })
    let at = 0
    const notes = (tracks[0] ?? []).flatMap((e) => {
      at += e.deltaTime
      return e.type === 'noteOn' || e.type === 'noteOff' ? [[e.type, at, e.noteNumber]] : []
    })
    expect(notes).toEqual([
      ['noteOn', 480, 62],
      ['noteOff', 960, 62],
      ['noteOn', 960, 65],
      ['noteOff', 1280, 65],
    ])
    expect(tracks[0]).toContainEqual(expect.objectContaining({ type: 'setTempo', microsecondsPerBeat: 666667 }))
  })
  it('is a table with its spelled names', () => {
    const line = lineOf([{ at: ticks(0), for: ticks(480), pitch: midi(70) }])
    expect(wrote('Wake', line, CHART, 'csv')).toBe('at,for,pitch,name,octave\n0,480,70,Bb,4\n')
  })
  it('from elsewhere is read in concert pitch, ties joined, its top note and main voice; what is left out is said', () => {
    const xml = `<score-partwise><part id="P1"><measure number="1">
      <attributes><divisions>2</divisions><transpose><diatonic>-1</diatonic><chromatic>-2</chromatic></transpose></attributes>
      <note><grace/><pitch><step>C</step><octave>5</octave></pitch><voice>1</voice></note>
      <note><pitch><step>D</step><octave>5</octave></pitch><duration>2</duration><tie type="start"/><voice>1</voice></note>
      <note><pitch><step>D</step><octave>5</octave></pitch><duration>1</duration><tie type="stop"/><voice>1</voice></note>
      <note><chord/><pitch><step>A</step><octave>4</octave></pitch><duration>1</duration><voice>1</voice></note>
      <note><pitch><step>E</step><octave>5</octave></pitch><duration>1</duration><voice>1</voice></note>
      <backup><duration>4</duration></backup>
      <note><pitch><step>G</step><octave>3</octave></pitch><duration>4</duration><voice>2</voice></note>
    </measure></part></score-partwise>`
    const read = readMusicXmlLine(xml)
    expect(read.ok && sounds(read.value.line)).toEqual([
      [0, 1440, 72],
      [1440, 480, 74],
    ])
    expect(read.ok && read.value.leftOut.map((l) => l.what)).toEqual([
      '1 lower note',
      '1 grace note',
      'part 1, voice 2 (1 note)',
    ])
  })
  it.each(['', 'X:1', '<a>', '<!DOCTYPE x [<!ENTITY y "z">]><score-partwise/>', 'K:C\n|'])(
    '%j is refused, not thrown at',
    async (text) => {
      expect((await readAbcLine(text)).ok).toBe(false)
      expect(readMusicXmlLine(text).ok).toBe(false)
    },
  )
  it.each([
    ['C999999999|', 'too large a figure'],
    ['Z99999999|', 'too large a figure'],
    ['Z2001|', 'rests for more than 2,000 bars'],
    ['C/99999|', 'too large a figure'],
    ['C9999'.repeat(400), 'goes on for more than'],
    ['cdef '.repeat(2500), 'more than 8,192 notes'],
    ['c&'.repeat(100), 'laid over each other'],
    ['V:1\nc|\n'.repeat(100), 'more than 64 voices'],
    [' '.repeat(200_001), 'more than 200,000 signs'],
  ])('a tune of %.20s is refused before it is played', async (music, why) => {
    const read = await readAbcLine(`X:1\nT:99999999\nL:1/8\nK:C\n${music}\n`)
    expect(read.ok ? '' : read.error.why).toContain(why)
  })
  it('a tune may have large figures where they are words, and long bars within reason', async () => {
    const read = await readAbcLine(
      'X:1234567\nT:99999999\n% 99999999\nK:C\n"C13"C1024| % 999999\n%%scale 999999\nw:999999\n',
    )
    expect(read.ok && read.value.line.map((n) => n.for)).toEqual([1024 * 480])
  })
  it('any text at all is read or refused', async () => {
    await fc.assert(
      fc.asyncProperty(fc.string(), fc.nat(40), async (junk, at) => {
        const abc = 'X:1\nM:4/4\nL:1/8\nK:Bb\n"Cm7"C2 EG (3ABc z2|'
        await readAbcLine(abc.slice(0, at) + junk + abc.slice(at))
        const xml = String(wrote('x', lineOf([{ at: ticks(0), for: ticks(480), pitch: midi(60) }]), WALTZ, 'musicxml'))
        readMusicXmlLine(xml.slice(0, at * 20) + junk + xml.slice(at * 20))
      }),
      { numRuns: 300 },
    )
  })
})

it('a line with a band is a file of four tracks: both choruses, swung, drums on their channel', () => {
  const line = lineOf([
    { at: ticks(0), for: ticks(480), pitch: midi(64) },
    { at: ticks(480), for: ticks(480), pitch: midi(65) },
    { at: ticks(barTicks(CHART.metre) * CHART.bars.length), for: ticks(960), pitch: midi(67) },
  ])
  const band = { tune: tuneOf(CHART, []), manner: { feel: 'swing', tempo: 90 } } as const
  const file = wrote('Wake', line, CHART, 'midi', band) as Uint8Array
  const { header, tracks } = parseMidi(file)
  expect(header).toMatchObject({ format: 1, numTracks: 4, ticksPerBeat: 960 })
  const tempo = tracks[0]?.find((e) => e.type === 'setTempo')
  expect(tempo).toMatchObject({ microsecondsPerBeat: Math.round(60_000_000 / 90) })
  const [sung = [], bass = [], , drums = []] = tracks.map((t) => {
    let at = 0
    return t.flatMap((e) => {
      at += e.deltaTime
      return e.type === 'noteOn' ? [{ at, ...e }] : []
    })
  })
  expect(sung.map((n) => n.noteNumber)).toEqual([64, 65, 67])
  expect(sung[1]?.at).toBeGreaterThan(560)
  expect(sung[1]?.at).toBeLessThan(660)
  expect(drums.every((n) => n.channel === 9)).toBe(true)
  expect(Math.max(...bass.map((n) => n.at))).toBeGreaterThan(sung[2]?.at ?? Infinity)
})

it('a band plays what the player said of the chords, and by the school that is followed', () => {
  const played = (kept: readonly KeptOverride[] | null, school: School = DEFAULT_SCHOOL): string => {
    const tune = readTune('| Dm7 | % | Em7 | Fmaj7 | % | G7 | % | Cmaj7 | % |', kept, { school })
    if (!tune.ok) throw new Error('the chart does not read')
    return Buffer.from(writeBandMidi(tune.value, null, { feel: 'swing', tempo: 120 })).toString('base64')
  }
  const plain = played(null)
  expect(played([{ bar: 6, beat: 1, job: 'static dominant', home: 'G altered' }])).not.toBe(plain)
  const others = (Object.keys(SCHOOL_CHOICES) as SchoolSetting[]).flatMap((setting) =>
    SCHOOL_CHOICES[setting].choices.map((c) => played(null, { ...DEFAULT_SCHOOL, [setting]: c } as School)),
  )
  expect(new Set(others).size).toBeGreaterThan(1)
})
