import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { keyName, metreName, readChord } from '../core/index.ts'
import { readChartFile, writeChart } from './files.ts'
import { openFile } from './open-file.ts'
import { readAbcLine } from './read-abc-line.ts'
import { readMusicXmlLine } from './read-musicxml-line.ts'
import type { ReadLine } from './voices.ts'

const tune = (music: string, head = 'M:4/4\nL:1/8') => `X:1\nT:Slipway\n${head}\nK:C\n${music}\n`
const namesOf = ({ line }: ReadLine): string => line.map((n) => n.note?.name ?? n.pitch).join(' ')
const lengthsOf = ({ line }: ReadLine): readonly number[] => line.map((n) => n.for)
const abc = async (source: string, voice: number | null = null): Promise<ReadLine> => {
  const read = await readAbcLine(source, voice)
  if (!read.ok) throw new Error(read.error.why)
  return read.value
}
const xml = (source: string, voice: number | null = null): ReadLine => {
  const read = readMusicXmlLine(source, voice)
  if (!read.ok) throw new Error(read.error.why)
  return read.value
}
const chartOf = async (source: string | Uint8Array) => {
  const read = await readChartFile(typeof source === 'string' ? strToU8(source) : source)
  if (!read.ok) throw new Error(read.error.why)
  return read.value
}
const barsOf = async (source: string): Promise<string> => {
  const { chart } = await chartOf(source)
  return chart.bars.map((b) => b.spots.map((s) => s.chord.symbol).join(' ')).join(' | ')
}

const pitch = (name: string) =>
  `<pitch><step>${name[0]}</step>${name.includes('b') ? '<alter>-1</alter>' : ''}<octave>${name.at(-1)}</octave></pitch>`
const whole = (name: string, voice = 1) => `<note>${pitch(name)}<duration>4</duration><voice>${voice}</voice></note>`
const left = (inside: string) => `<barline location="left">${inside}</barline>`
const direction = (inside: string) => `<direction><direction-type>${inside}</direction-type></direction>`
const said = (words: string) => direction(`<words>${words}</words>`)
const drawn = (sign: string) => direction(`<${sign}/>`)
const sound = (sign: string) => `<sound ${sign}="yes"/>`
const right = (inside: string) => `<barline location="right">${inside}</barline>`
const measures = (all: readonly string[]) => all.map((m, i) => `<measure number="${i + 1}">${m}</measure>`).join('')
const DIVISIONS =
  '<attributes><divisions>1</divisions><time><beats>4</beats><beat-type>4</beat-type></time></attributes>'
const score = (...parts: readonly (readonly string[])[]) =>
  `<?xml version="1.0" encoding="UTF-8"?><score-partwise version="4.0"><part-list>${parts
    .map((_, i) => `<score-part id="P${i}"><part-name>Part ${i + 1}</part-name></score-part>`)
    .join('')}</part-list>${parts
    .map((p, i) => `<part id="P${i}">${measures([DIVISIONS + (p[0] ?? ''), ...p.slice(1)])}</part>`)
    .join('')}</score-partwise>`

/** Bars by their letters with repeat signs, once as a tune and once as a score, and what is heard of them. */
const FORMS: readonly (readonly [string, readonly string[], string])[] = [
  [
    'C8|1 D8:|2 E8:| F8|1 G8:|2 A8:|',
    [
      whole('C4'),
      left('<ending number="1" type="start"/>') +
        whole('D4') +
        right('<ending number="1" type="stop"/><repeat direction="backward"/>'),
      left('<ending number="2" type="start"/>') +
        whole('E4') +
        right('<ending number="2" type="stop"/><repeat direction="backward"/>'),
      whole('F4'),
      left('<ending number="1" type="start"/>') +
        whole('G4') +
        right('<ending number="1" type="stop"/><repeat direction="backward"/>'),
      left('<ending number="2" type="start"/>') +
        whole('A4') +
        right('<ending number="2" type="stop"/><repeat direction="backward"/>'),
    ],
    'C D C E F G F A',
  ],
  [
    'C8|:D8|E8:|F8|',
    [
      whole('C4'),
      left('<repeat direction="forward"/>') + whole('D4'),
      whole('E4') + right('<repeat direction="backward"/>'),
      whole('F4'),
    ],
    'C D E D E F',
  ],
  [
    '|:C8|1,2 D8:|3 E8|]',
    [
      left('<repeat direction="forward"/>') + whole('C4'),
      left('<ending number="1, 2" type="start"/>') +
        whole('D4') +
        right('<ending number="1, 2" type="stop"/><repeat direction="backward"/>'),
      left('<ending number="3" type="start"/>') + whole('E4') + right('<ending number="3" type="discontinue"/>'),
    ],
    'C D C D C E',
  ],
  [
    '|:C8|D8!fine!:|E8|F8!D.C.alfine!|',
    [
      left('<repeat direction="forward"/>') + whole('C4'),
      whole('D4') + sound('fine') + right('<repeat direction="backward"/>'),
      whole('E4'),
      whole('F4') + said('D.C. al Fine'),
    ],
    'C D C D E F C D',
  ],
  [
    'C8|!segno!D8|E8!dacoda!|F8!D.S.alcoda!|!coda!G8|A8|]',
    [
      whole('C4'),
      drawn('segno') + whole('D4'),
      whole('E4') + said('To Coda') + drawn('coda'),
      whole('F4') + sound('dalsegno'),
      drawn('coda') + whole('G4'),
      whole('A4'),
    ],
    'C D E F D E G A',
  ],
  [
    '|:C8|1 D8:|2 E8!coda!|F8"^D.C. al Coda"|!coda!|:G8:|',
    [
      left('<repeat direction="forward"/>') + whole('C4'),
      left('<ending number="1" type="start"/>') +
        whole('D4') +
        right('<ending number="1" type="stop"/><repeat direction="backward"/>'),
      left('<ending number="2" type="start"/>') +
        whole('E4') +
        drawn('coda') +
        right('<ending number="2" type="discontinue"/>'),
      whole('F4') + said('Da Capo al Coda'),
      drawn('coda') + left('<repeat direction="forward"/>') + whole('G4') + right('<repeat direction="backward"/>'),
    ],
    'C D C E F C E G G',
  ],
]

describe('repeats and endings', () => {
  it.each(FORMS)('%s', async (music, bars, heard) => {
    expect(namesOf(await abc(tune(music)))).toBe(heard)
    expect(namesOf(xml(score(bars)))).toBe(heard)
    // A chart of the same form has the same bars in the same order.
    const chords = music.replace(/([A-G])8/g, '"$1"$18')
    expect(await barsOf(tune(chords))).toBe(heard.replaceAll(' ', ' | '))
  })
  it('a repeat of three passes is played three times, and what follows is not', async () => {
    const thrice = right('<repeat direction="backward" times="3"/>')
    const chord = (root: string) => `<harmony><root><root-step>${root}</root-step></root><kind>major</kind></harmony>`
    const source = score([
      chord('C') + whole('C4') + thrice,
      chord('D') + whole('D4'),
      chord('E') + whole('E4') + right('<repeat direction="backward"/>'),
    ])
    expect(namesOf(xml(source))).toBe('C C C D E D E')
    expect(await barsOf(source)).toBe('C | C | C | D | E | D | E')
    expect((await chartOf(source)).leftOut.map((l) => l.what)).toContain('a repeat of more than two passes')
  })
  it('under a sign that repeats bars stand the chords of the bars before', async () => {
    const chord = (root: string) => `<harmony><root><root-step>${root}</root-step></root><kind>minor</kind></harmony>`
    const sign = (type: string, n = 2) =>
      `<attributes><measure-style><measure-repeat type="${type}">${n}</measure-repeat></measure-style></attributes>`
    const rest = '<note><rest measure="yes"/><duration>4</duration></note>'
    const bars = [
      chord('D') + rest,
      chord('G') + rest,
      sign('start') + rest,
      rest,
      sign('stop') + chord('A') + rest,
      rest,
    ]
    expect(await barsOf(score(bars))).toBe('Dm | Gm | Dm | Gm | Am | Am')
  })
  it.each([
    [
      '|: "D"D4 | "A"A8 | "E"E4 :: "F"F4 | "G"G8 | "B"B4 :|',
      'a repeat in the middle of a bar',
      'D | A | E D | A | E F | G | B F | G | B',
    ],
    ['"D"D2 |: "A"A8 | "E"E6 :: "F"F2 | "G"G8 | "B"B6 :|', 'pickups to each part', null],
    ['"C"C4 || "F"F4 | "G"G8 |]', 'a double bar line in the middle of a bar', 'C F | G'],
  ])('%s: %s makes no bar longer than it is', async (music, _, bars) => {
    const { chart, leftOut } = await chartOf(tune(music))
    const played = chart.bars.map((b) => b.spots.map((s) => s.chord.symbol).join(' ')).join(' | ')
    if (bars !== null) expect(played).toBe(bars)
    const length = chart.bars.reduce((sum, b) => sum + b.spots.reduce((all, s) => all + s.length, 0), 0)
    const last = (await abc(tune(music))).line.at(-1)
    expect(length - ((last?.at ?? 0) + (last?.for ?? 0))).toBeLessThan(3840)
    expect(leftOut.map((l) => l.what)).not.toContain('the length of bar 2')
  })
  it('join what is tied over a repeat sign only where it goes on', async () => {
    expect(lengthsOf(await abc(tune('|:C8-|1 C8:|2 D8|]')))).toEqual([7680, 3840, 3840])
  })
})

describe('the tempo', () => {
  const metronome = (unit: string, figure: string) =>
    `<direction><direction-type><metronome>${unit}<per-minute>${figure}</per-minute></metronome></direction-type></direction>`
  const timed = (beats: number, type: number, mark: string) =>
    score([mark + '<harmony><root><root-step>C</root-step></root><kind>major</kind></harmony>' + whole('C4')]).replace(
      '<beats>4</beats><beat-type>4</beat-type>',
      `<beats>${beats}</beats><beat-type>${type}</beat-type>`,
    )
  // The tempo of a chart counts the beats of its metre.
  it.each([
    ['M:6/8', 'Q:3/8=100', 300],
    ['M:6/8', 'Q:1/8=150', 150],
    ['M:6/8', 'Q:1/4=90', 180],
    ['M:4/4', 'Q:1/2=80', 160],
    ['M:C|', 'Q:1/2=80', 80],
    ['M:C|', 'Q:1/4=160', 80],
    ['M:12/8', 'Q:"Rolling" 3/8=60', 180],
    ['M:3/4', 'Q:3/4=50', 150],
  ])('of a tune in %s with %s', async (metre, mark, beats) => {
    expect((await chartOf(tune('"C"C4|', `${metre}\nL:1/8\n${mark}`))).chart.tempo).toBe(beats)
  })
  it.each([
    [6, 8, '<beat-unit>quarter</beat-unit><beat-unit-dot/>', '100', 300],
    [4, 4, '<beat-unit>half</beat-unit>', '80', 160],
    [2, 2, '<beat-unit>half</beat-unit>', '80', 80],
    [4, 4, '<beat-unit>eighth</beat-unit>', '200', 100],
    [3, 4, '<beat-unit>half</beat-unit><beat-unit-dot/>', 'c. 50', 150],
  ])('of a score in %i/%i with %s = %s', async (beats, type, unit, figure, tempo) => {
    expect((await chartOf(timed(beats, type, metronome(unit, figure)))).chart.tempo).toBe(tempo)
  })
  it('that sounds goes before the mark', async () => {
    const both = metronome('<beat-unit>half</beat-unit>', '80').replace(
      '</direction>',
      '<sound tempo="150"/></direction>',
    )
    expect((await chartOf(timed(4, 4, both))).chart.tempo).toBe(150)
  })
})

describe('voices', () => {
  const TWO = 'V:1 name="Flute"\nV:2 name="Cello" clef=bass\n'
  const mixed = 'V:1\nc4 d4|\nV:2\nC,8|\nV:1\ne4 f4|\nV:2\nD,8|\n'
  it.each([
    ['declared in the head', tune(mixed).replace('K:C', `${TWO}K:C`)],
    [
      'declared where they begin',
      tune(mixed.replace('V:1\n', 'V:1 name="Flute"\n').replace('V:2\n', 'V:2 name="Cello" clef=bass\n')),
    ],
    ['in brackets', tune('[V:1] c4 d4|\n[V:2] C,8|\n[V:1] e4 f4|\n[V:2] D,8|').replace('K:C', `${TWO}K:C`)],
    ['joined on staves', tune(mixed).replace('K:C', `%%score (1 2)\n${TWO}K:C`)],
  ])('of a tune are kept apart: %s', async (_, source) => {
    const first = await abc(source)
    expect(namesOf(first)).toBe('C D E F')
    expect(first.voices).toMatchObject([
      { name: 'Flute', notes: 4, low: 72, high: 77, course: [72, 74, 76, 77] },
      { name: 'Cello', notes: 2, low: 48, high: 50 },
    ])
    expect(first.leftOut).toContainEqual({ what: 'Cello (2 notes)', why: 'a line is one voice' })
    const second = await abc(source, 1)
    expect([namesOf(second), second.chosen]).toEqual(['C D', 1])
  })
  it('of a score: parts and the voices in them', () => {
    const source = score(
      [`${whole('C5')}<backup><duration>4</duration></backup>${whole('E3', 2)}`, whole('D5')],
      [whole('G2'), whole('A2')],
    )
    const read = xml(source)
    expect(read.voices.map((v) => [v.name, v.notes])).toEqual([
      ['Part 1, voice 1', 2],
      ['Part 1, voice 2', 1],
      ['Part 2', 2],
    ])
    expect(namesOf(read)).toBe('C D')
    expect(namesOf(xml(source, 2))).toBe('G A')
  })
  it('the likeliest is on top most of the time, or named so; one high note is none', async () => {
    const bells = 'V:1 name="Bells"\nz8|c\'\'8|\nV:2 name="Reed"\ncdef gfed|c8|\nV:3 name="Low"\nCDEF GFED|C8|\n'
    expect((await abc(tune(bells))).voices[(await abc(tune(bells))).chosen]?.name).toBe('Reed')
    const sung = bells.replace('"Low"', '"Lead"')
    expect((await abc(tune(sung))).voices[(await abc(tune(sung))).chosen]?.name).toBe('Lead')
  })
  it('of several tunes, the first is read and the others can be asked for', async () => {
    const two = `${tune('CDEF GABc|')}\nX:2\nT:Fender\nL:1/8\nK:C\nGFED C4|\n`
    const read = await abc(two)
    expect(read.voices.map((v) => [v.track, v.name])).toEqual([
      [0, 'Slipway'],
      [1, 'Fender'],
    ])
    expect(namesOf(read)).toBe('C D E F G A B C')
    expect(namesOf(await abc(two, 1))).toBe('G F E D C')
  })
  it('chords are read of whichever voice has them', async () => {
    expect(await barsOf(tune('V:1\nc8|d8|\nV:2\n"Am"C8|"Dm"D8|'))).toBe('Am | Dm')
  })
})

describe('what a tune writes', () => {
  it.each([
    ['a key and accidentals, which hold to the bar line', 'K:Eb\nE ^F F A|F B|', 'Eb F# F# Ab F Bb'],
    ['a tie keeps an accidental over the bar line', '^C8-|C4 C4|', 'C# C'],
    ['a key that changes', '[K:D]F[K:F]B|', 'F# Bb'],
    ['spacers, which take no time, ornaments and marks', 'C y D ~E TF !f!G .A|', 'C D E F G A'],
    ['spelling, double accidentals too', '_C ^E __B ^^F|', 'Cb E# Bbb F##'],
  ])('%s', async (_, music, heard) => {
    const source = music.startsWith('K:') ? tune('').replace(/K:C\n\n/, `${music}\n`) : tune(music)
    expect(namesOf(await abc(source))).toBe(heard)
  })
  it('lengths: broken rhythm, tuplets, rests of many bars', async () => {
    expect(lengthsOf(await abc(tune('C>D E<F (3GAB (5cdefg|')))).toEqual([
      ...[720, 240, 240, 720, 320, 320, 320, 192, 192, 192, 192, 192],
    ])
    expect((await abc(tune('C8|Z3|D8|'))).line.map((n) => n.at)).toEqual([0, 4 * 3840])
    expect(await barsOf(tune('"C"C8|Z3|"F"F8|'))).toBe('C | C | C | C | F')
  })
  it('a tempo on the way leaves lengths as they are', async () => {
    expect(lengthsOf(await abc(tune('C4 D4|[Q:1/4=90]E4 F4|')))).toEqual([1920, 1920, 1920, 1920])
  })
  it('labels of parts are sections; a second choice of chord is said', async () => {
    const { chart, leftOut } = await chartOf(tune('P:A\n"C""(Am)"C8|\nP:B\n"(F)"F8|'))
    expect(chart.bars.map((b) => b.section)).toEqual(['A', 'B'])
    expect(chart.bars.map((b) => b.spots[0]?.chord.symbol)).toEqual(['C', 'F'])
    expect(leftOut).toContainEqual({ what: '“(Am)” in bar 1', why: 'one chord stands in a place' })
  })
})

describe('an order of parts', () => {
  const PARTS = 'P:A\n"C"C8|\nP:B\n|:"F"F8:|\nP:C\n"G"G8|'
  it.each([
    ['AABA', 'C C F F C'],
    ['A2(BC)2', 'C C F F G F F G'],
    ['A.B.A', 'C F F C'],
    ['C (A B)', 'G C F F'],
    ['ABC', 'C F F G'],
  ])('%s is played out, chart and line alike', async (order, expected) => {
    const source = tune(PARTS, `P:${order}\nM:4/4\nL:1/8`)
    expect(await barsOf(source)).toBe(expected.split(' ').join(' | '))
    expect(namesOf(await abc(source))).toBe(expected)
  })
  it.each(['AXA', 'A(B', 'A)', '9', 'A9999B9999'])(
    '%s is none: the parts stand as they are written, and it is said',
    async (order) => {
      const source = tune(PARTS, `P:${order}\nM:4/4\nL:1/8`)
      expect(await barsOf(source)).toBe('C | F | F | G')
      expect((await chartOf(source)).leftOut.map((l) => l.what)).toContain('an order of parts')
    },
  )
  it('what stands before the first label is played once', async () => {
    expect(await barsOf(tune(`"D"D8|\n${PARTS}`, 'P:ABA\nM:4/4\nL:1/8'))).toBe('D | C | F | F | C')
  })
})

describe('a chord of a score', () => {
  const degree = (value: number, alter: number, type = 'add') =>
    `<degree><degree-value>${value}</degree-value><degree-alter>${alter}</degree-alter><degree-type>${type}</degree-type></degree>`
  it.each([
    ['7sus4', 'dominant', '', 'C7sus4'],
    ['13(b9)', 'dominant-13th', '', 'C13(b9)'],
    ['7(omit3)', 'dominant', '', 'C7(omit3)'],
    ['m11b5', 'half-diminished', '', 'Cm11b5'],
    // What is printed says less: only the sign of its family, or nothing at all.
    ['7', 'dominant-ninth', '', 'C9'],
    ['', 'minor-seventh', '', 'Cm7'],
    ['m', 'minor-seventh', '', 'Cm7'],
    ['7', 'dominant', degree(9, -1), 'C7(b9)'],
    ['7', 'dominant', degree(5, 1, 'alter'), 'C7(#5)'],
  ])('printed “%s” for %s', async (printed, kind, degrees, symbol) => {
    const source = score([
      `<harmony><root><root-step>C</root-step></root><kind text="${printed}">${kind}</kind>${degrees}</harmony>${whole('C4')}`,
    ])
    const wanted = readChord(symbol)
    const found = (await chartOf(source)).chart.bars[0]?.spots[0]?.chord
    expect(found?.kind === 'chord' && found.symbol).toBe(wanted.ok && wanted.value.symbol)
  })
})

describe('a metre and a key that change', () => {
  const attributes = (inside: string) => `<attributes>${inside}</attributes>`
  const time = (beats: number, type: number) => `<time><beats>${beats}</beats><beat-type>${type}</beat-type></time>`
  const chord = (root: string, kind = 'dominant') =>
    `<harmony><root><root-step>${root}</root-step></root><kind>${kind}</kind></harmony>`
  const rest = (length: number) => `<note><rest/><duration>${length}</duration></note>`
  const told = async (source: string) => {
    const { chart, leftOut } = await chartOf(source)
    const bars = chart.bars.map((b) => `${metreName(b.metre)} ${b.key ? keyName(b.key) : '-'} ${b.spots.length}`)
    return [bars, leftOut.map((l) => l.what)]
  }
  const BARS = ['4/4 C major 1', '3/4 C major 2', '6/8 Ab major 1', '2/2 Ab major 1']
  it('in a tune: between its lines and inside them', async () => {
    expect(await told(tune('"G7"z8|[M:3/4]"C7"z4"F7"z2|\nK:Ab\nM:6/8\n"Eb7"z6|[M:C|]"Ab6"z8|]'))).toEqual([BARS, []])
  })
  it('in a score', async () => {
    const bars = [
      attributes('<key><fifths>0</fifths></key>') + chord('G') + rest(4),
      attributes(time(3, 4)) + chord('C') + rest(2) + chord('F') + rest(1),
      attributes(`<key><fifths>-4</fifths></key>${time(6, 8)}`) + chord('E') + rest(3),
      attributes(time(2, 2)) + chord('A', 'major-sixth') + rest(4),
    ]
    expect(await told(score(bars))).toEqual([BARS, []])
  })
  it('a bar that is longer or shorter than its metre has one of its own, and its chords stay', async () => {
    expect((await told(tune('"G7"z8|"C7"z4"F7"z8|"Bb7"z4|"C6"z8|]')))[0]).toEqual([
      ...['4/4 C major 1', '6/4 C major 2', '2/4 C major 1', '4/4 C major 1'],
    ])
    expect((await told(tune('"G7"z8|"C7"z3"F7"z/|"C6"z8|]')))[1]).toEqual(['the length of bar 2'])
  })
})

describe('a file of several tunes', () => {
  const FILE = ['C4', '"Dm7"D4', '"G7"G4']
    .map((music, i) => `X:${i + 1}\nT:Knot ${i + 1}\nL:1/4\nK:C\n${music}|\n`)
    .join('\n')
  it('gives the first that has chords, and any other that is asked for', async () => {
    const first = await chartOf(FILE)
    expect([first.chart.title, first.chosen, first.tunes?.map((t) => t.chords)]).toEqual(['Knot 2', 1, [0, 1, 1]])
    const third = await readChartFile(strToU8(FILE), 2)
    expect(third.ok && third.value.chart.title).toBe('Knot 3')
    const silent = await readChartFile(strToU8(FILE), 0)
    expect(!silent.ok && silent.error.why).toMatch(/no chord symbols/)
  })
})

describe('a chord that is not understood', () => {
  it('leaves a hole that is seen, and not the chord before', async () => {
    const strange = '<harmony><root><root-step>G</root-step></root><kind text="tristan">other</kind></harmony>'
    const plain = '<harmony><root><root-step>C</root-step></root><kind>major</kind></harmony>'
    const degrees = '<harmony><function>IV</function><kind>major</kind></harmony>'
    const source = score([
      plain + whole('C4'),
      strange + whole('C4'),
      degrees + whole('C4'),
      whole('C4'),
      plain + whole('C4'),
    ])
    expect(await barsOf(source)).toBe('C | ? | ? | ? | C')
    expect((await chartOf(source)).leftOut.map((l) => l.what).sort()).toEqual([
      'Gtristan in bar 2',
      'IV in bar 3',
      'the notes',
    ])
    expect(await barsOf(tune('"C"C8|"Hb77"D8|"F"F8|]'))).toBe('C | ? | F')
  })
  it('stays that hole through every format', async () => {
    const { chart } = await chartOf('| C ? | Dm7:3 ? | ? | % |')
    for (const format of ['musicxml', 'abc'] as const)
      expect(await barsOf(writeChart(chart, '', format)), format).toBe('C ? | Dm7 ? | ? | ?')
  })
})

describe('a file in any dress', () => {
  const SCORE = score([
    '<harmony><root><root-step>C</root-step></root><kind>major</kind></harmony>' + whole('C4'),
  ]).replace('<part-list>', '<work><work-title>Grüne Boje</work-title></work><part-list>')
  const utf16 = (text: string, isLittle: boolean, mark: boolean): Uint8Array => {
    const units = [...((mark ? '\uFEFF' : '') + text)].map((c) => c.charCodeAt(0))
    const bytes = new Uint8Array(units.length * 2)
    for (const [i, u] of units.entries()) new DataView(bytes.buffer).setUint16(i * 2, u, isLittle)
    return bytes
  }
  const latin1 = (text: string) => Uint8Array.from([...text].map((c) => c.charCodeAt(0)))
  const packed = (inside: Uint8Array) =>
    zipSync({
      'META-INF/container.xml': strToU8(
        '<container><rootfiles><rootfile full-path="deep/score.xml"/></rootfiles></container>',
      ),
      'deep/score.xml': inside,
    })
  const wide = SCORE.replace('UTF-8', 'UTF-16')
  it.each([
    ['a mark before the declaration', strToU8(`\uFEFF${SCORE}`)],
    ['a line before the declaration', strToU8(`\r\n\n${SCORE}`)],
    ['both', strToU8(`\uFEFF\n${SCORE}`)],
    ['UTF-16, low byte first', utf16(wide, true, true)],
    ['UTF-16, high byte first', utf16(wide, false, true)],
    ['UTF-16 without a mark', utf16(wide, true, false)],
    ['Latin-1, declared', latin1(SCORE.replace('UTF-8', 'ISO-8859-1'))],
    ['packed', packed(strToU8(SCORE))],
    ['packed in UTF-16', packed(utf16(wide, true, true))],
    ['a document type', strToU8(SCORE.replace('?>', '?><!DOCTYPE score-partwise PUBLIC "x" "y">'))],
    ['a document type with nothing in it', strToU8(SCORE.replace('?>', '?><!DOCTYPE score-partwise [ ]>'))],
  ])('%s: chart and line', async (_, bytes) => {
    const { chart } = await chartOf(bytes)
    expect([chart.title, chart.bars[0]?.spots[0]?.chord.symbol]).toEqual(['Grüne Boje', 'C'])
    const opened = openFile(bytes)
    expect(opened.ok && namesOf(xml(opened.value.text))).toBe('C')
  })
  it('what is declared inside a document type is refused', async () => {
    const bad = strToU8(SCORE.replace('?>', '?><!DOCTYPE score-partwise [<!ENTITY a "b">]>'))
    expect((await readChartFile(bad)).ok).toBe(false)
  })
})
