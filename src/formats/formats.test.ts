import { readdirSync, readFileSync } from 'node:fs'
import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { type Chart, keyName, metreName, readChart, readHarmony, spotsOf } from '../core/index.ts'
import { readChartFile, writeChart } from './files.ts'
import { fromXml, toXml } from './musicxml-chords.ts'

const chart = (text: string): Chart => {
  const read = readChart(text)
  if (!read.ok) throw new Error(JSON.stringify(read.error))
  return read.value
}
const file = async (content: string | Uint8Array) => {
  const read = await readChartFile(typeof content === 'string' ? strToU8(content) : content)
  if (!read.ok) throw new Error(read.error.why)
  return read.value
}
const refusal = async (content: string | Uint8Array): Promise<string> => {
  const read = await readChartFile(typeof content === 'string' ? strToU8(content) : content)
  return read.ok ? 'read' : read.error.why
}
const facts = (c: Chart) => ({
  title: c.title,
  key: c.key && keyName(c.key),
  metre: c.metre,
  tempo: c.tempo,
  feel: c.feel,
  sections: c.bars.flatMap((b) => (b.section === null ? [] : [`${b.number} ${b.section}`])),
  changes: c.bars.map((b) => `${metreName(b.metre)} ${b.key && keyName(b.key)}`),
  bars: c.bars.length,
  spots: spotsOf(c).map((s) => `${s.bar}+${s.at} ${s.chord.symbol} ${s.length}`),
})

const DEMO = new URL('../../demo/charts/', import.meta.url)
const BAND = readdirSync(DEMO).map((f) => readFileSync(new URL(f, DEMO), 'utf8'))
const HARD = [
  'title = Pickup\nkey = F\nmetre = 3/4\npickup = 1\n| C7 | Fmaj7 | Bb7 | Am7 D7:1 |',
  'title = Five\nkey = C# minor\nmetre = 5/4\n| C#m9 F#13 | B7:2 E6/9:3 | Amaj7#11 |',
  'title = Endings\nkey = Eb\n== Rope\n|: Ebmaj7 | Cm7 |1. Fm7 Bb7 | % :|2. Fm7 Bb7 | Eb6 |\n== Chain\n| Abm7 | Db7 |',
  'title = Thrice\nkey = G\n|: Gmaj7 |1,2. Am7 D7 :|3. G6 |',
  'title = Beats\nkey = Bb\n| Bbmaj7 G7 Cm7 F7 | Dm7 G7alt Cm9 F13b9 | Bb6 Bb7/D Ebmaj7 Edim7 | Bb/F G7#5 C7b5 F7sus4 |',
  'title = Poly\nkey = A minor\n| (B|Am) | (A|Bb) | (E|Dm7) | Am(maj7) |',
  'title = Feelings\nkey = F minor\nfeel = bossa\ntempo = 152\n== Out to sea\n| Bbb7 | C##dim7 | Fb6/9 E#m7b5 | % |\n== B\n| ? | Bbb7 ? | N.C. | Ebb7(b9) |',
  'title = Straight\nfeel = straight\nmetre = 6/8\n| Am9:1 E7:5 | % |',
  'title = Changes\nkey = D minor\npickup = 1\n| A7 | Dm6 |\nkey = F\n|: 3/4 C7 | F6 |1. 7/8 Gm7:3 C7:4 :|2. 4/4 F6 |\n== Out\n2/2 | Bbmaj7 | 12/16 % |',
  'title = Drone\nfeel = free drone\n| Dm7 | % |',
  'title = Silence\n| N.C. | Cmaj7 N.C. | N.C. G7 | C |',
  'title = Slashes\nkey = D\n| D/F# | G/A | Em7/A | Dmaj7/C# |',
  `title = Long\nkey = Gb\nmetre = 4/4\n${'| Gbmaj7 Ebm7 | Abm7 Db7 | Cbmaj7 B7 | Bbm7b5 Eb7b9 |\n'.repeat(16)}`,
  'title = Odd & <plain> "names"\nkey = D# minor\nmetre = 7/8\n| D#m7:3 G#7:4 | C#maj9 | Fm7b5(11) | E7(b9,#11,13) C7no3 |',
]

describe('a chart comes back from every format with the same chords and beats', () => {
  it.each([...BAND, ...HARD].map((text) => [chart(text).title, text] as const))('%s', async (_, text) => {
    const mine = chart(text)
    for (const format of ['text', 'musicxml', 'abc'] as const) {
      const back = await file(writeChart(mine, text, format))
      expect(back.format).toBe(format)
      expect(back.leftOut, format).toEqual([])
      const { bars, ...rest } = facts(back.chart)
      expect(rest, format).toEqual({ ...facts(mine), bars: undefined })
      expect(bars).toBe(mine.bars.length)
    }
    for (const format of ['musicxml', 'abc'] as const) {
      const once = await file(writeChart(mine, text, format))
      const written = writeChart(once.chart, once.text, format)
      const twice = await file(written)
      expect(twice.text, format).toBe(once.text)
      expect(writeChart(twice.chart, twice.text, format), format).toBe(written)
    }
    const packed = zipSync({
      'META-INF/container.xml': strToU8(
        '<container><rootfiles><rootfile full-path="a/b.xml"/></rootfiles></container>',
      ),
      'a/b.xml': strToU8(writeChart(mine, text, 'musicxml')),
    })
    expect(facts((await file(packed)).chart)).toEqual(facts(mine))
  })
  it('keeps repeats and sections as they are written', async () => {
    const mine = chart(HARD[2] as string)
    const back = (await file(writeChart(mine, '', 'musicxml'))).chart
    const form = (c: Chart) => c.written.map((b) => [b.section, b.opens, b.closes, b.endings])
    expect(form(back)).toEqual(form(mine))
  })
})

const score = (measures: string, more = '') =>
  `<?xml version="1.0"?><!DOCTYPE score-partwise PUBLIC "-//Some//DTD//EN" "http://nowhere.invalid/partwise.dtd">
  <score-partwise><movement-title>Hand  made</movement-title><part-list/><part id="P1">${measures}</part>${more}</score-partwise>`
const measure = (inside: string, attributes = 'number="2"') => `<measure ${attributes}>${inside}</measure>`
const FIRST =
  '<attributes><divisions>2</divisions><key><fifths>-2</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes>'
const chordXml = (step: string, kind: string, more = '') =>
  `<harmony><root><root-step>${step}</root-step></root>${kind}${more}</harmony>`
const rest = (duration: number) => `<note><rest/><duration>${duration}</duration></note>`
const kind = (k: string, text?: string) => `<kind${text === undefined ? '' : ` text="${text}"`}>${k}</kind>`
const degreeXml = (value: number, alter: number, type: string) =>
  `<degree><degree-value>${value}</degree-value><degree-alter>${alter}</degree-alter><degree-type>${type}</degree-type></degree>`
const spots = async (xml: string) =>
  spotsOf((await file(xml)).chart).map((s) => `${s.bar} ${s.at / 960 + 1} ${s.chord.symbol}`)

describe('scores from other hands', () => {
  it.each<[what: string, body: string, expected: readonly string[]]>([
    [
      'chords among notes',
      measure(FIRST + chordXml('C', kind('minor-seventh')) + rest(4) + chordXml('F', kind('dominant')) + rest(4)),
      ['1 1 Cm7', '1 3 F7'],
    ],
    [
      'an offset in place of rests',
      measure(FIRST + chordXml('C', kind('major')) + chordXml('G', kind('dominant'), '<offset>6</offset>') + rest(8)),
      ['1 1 C', '1 4 G7'],
    ],
    ['a kind that is missing', measure(FIRST + chordXml('D', '') + rest(8)), ['1 1 D']],
    ['only a text', measure(FIRST + chordXml('D', kind('other', 'm7(b5)')) + rest(8)), ['1 1 Dm7b5']],
    [
      'a text that says less than the degrees',
      measure(FIRST + chordXml('D', kind('dominant', '7'), degreeXml(9, -1, 'add')) + rest(8)),
      ['1 1 D7(b9)'],
    ],
    [
      'a fifth altered',
      measure(FIRST + chordXml('D', kind('dominant'), degreeXml(5, 1, 'alter')) + rest(8)),
      ['1 1 D7#5'],
    ],
    [
      'a suspension by degrees',
      measure(FIRST + chordXml('D', kind('dominant'), degreeXml(4, 0, 'add') + degreeXml(3, 0, 'subtract')) + rest(8)),
      ['1 1 D7sus4'],
    ],
    ['no chord', measure(FIRST + chordXml('C', kind('none')) + rest(8)), ['1 1 N.C.']],
    [
      'a bar that goes on',
      measure(FIRST + chordXml('C', kind('major')) + rest(8)) +
        measure(rest(8)) +
        measure(rest(4) + chordXml('F', kind('major')) + rest(4)),
      ['1 1 C', '2 1 C', '3 1 C', '3 3 F'],
    ],
    [
      'a bass',
      measure(
        FIRST +
          chordXml('C', kind('major'), '<bass><bass-step>B</bass-step><bass-alter>-1</bass-alter></bass>') +
          rest(8),
      ),
      ['1 1 C/Bb'],
    ],
    [
      'chord notes and a second voice',
      measure(
        `${FIRST}${rest(4)}<note><chord/><pitch/><duration>4</duration></note><backup><duration>4</duration></backup>${chordXml('C', kind('major'))}${rest(8)}`,
      ),
      ['1 1 C'],
    ],
    [
      'a pickup',
      measure(FIRST + chordXml('G', kind('dominant')) + rest(2), 'number="0" implicit="yes"') +
        measure(chordXml('C', kind('major')) + rest(8)),
      ['0 1 G7', '1 1 C'],
    ],
    [
      'a transposing part',
      measure(
        `${FIRST}<attributes><transpose><diatonic>-1</diatonic><chromatic>-2</chromatic></transpose></attributes>${chordXml('D', kind('minor-seventh'))}${rest(8)}`,
      ),
      ['1 1 Cm7'],
    ],
    [
      'repeats with voltas',
      measure(
        `<barline location="left"><repeat direction="forward"/></barline>${FIRST}${chordXml('C', kind('major'))}${rest(8)}`,
      ) +
        measure(
          `<barline location="left"><ending number="1" type="start"/></barline>${chordXml('G', kind('dominant'))}${rest(8)}<barline location="right"><ending number="1" type="stop"/><repeat direction="backward"/></barline>`,
        ) +
        measure(
          `<barline location="left"><ending number="2" type="start"/></barline>${chordXml('F', kind('major'))}${rest(8)}`,
        ),
      ['1 1 C', '2 1 G7', '3 1 C', '4 1 F'],
    ],
  ])('%s', async (_, body, expected) => {
    expect(await spots(score(body))).toEqual(expected)
  })
  it('takes the part with most chords, and says what it left out and why', async () => {
    const bar = measure(FIRST + chordXml('C', kind('major')) + rest(8))
    const strange = measure(`${chordXml('H', kind('tristan'))}<note><pitch/><duration>8</duration></note>`)
    const read = await file(score(bar + strange, `<part id="P2">${bar}</part>`))
    expect(read.leftOut.map((l) => l.what)).toEqual(['the 1 chords of part P2', 'the notes', 'H tristan in bar 2'])
    expect([read.chart.title, read.chart.key && keyName(read.chart.key)]).toEqual(['Hand made', 'Bb major'])
  })
  it('reads ABC by other hands', async () => {
    const tune =
      'X:1\nT:Reel of rope\nM:6/8\nL:1/8\nK:Ador\n|: "Am"A2B "^loud"c2d | "G"BAG [GB]3 |1 "Em7"E6 :|2 "Am7"(3ABc d3 z |]\n'
    const read = await file(tune)
    expect(spotsOf(read.chart).map((s) => `${s.bar} ${s.chord.symbol}`)).toEqual([
      '1 Am',
      '2 G',
      '3 Em7',
      '4 Am',
      '5 G',
      '6 Am7',
    ])
    expect(read.leftOut.map((l) => l.what)).toContain('the notes')
  })
  it('every kind of chord of ours survives MusicXML, by its structure alone too', async () => {
    for (const symbol of 'C,Cm,C+,Cdim,C5,Csus4,C6,Cm6,C6/9,Cmaj7,Cm7,C7,C9,C13,Cm7b5,Cdim7,CmMaj7,C7sus4,C7b9,C7#9,C7#11,C7#5,C7b5,C13b9,Cmaj7#11,Cadd9,C9sus4'.split(
      ',',
    )) {
      const read = readHarmony(symbol)
      if (!read.ok || read.value.kind === 'no chord') throw new Error(symbol)
      const xml = toXml(read.value)
      expect(fromXml(xml)?.symbol, symbol).toBe(read.value.symbol)
      expect(fromXml({ ...xml, text: null })?.symbol, `${symbol} by structure`).toBe(read.value.symbol)
    }
  })
})

describe('what is refused', () => {
  it.each<[what: string, content: string | Uint8Array, why: RegExp]>([
    ['nothing', '', /empty/],
    ['broken XML', '<score-partwise><part>', /well-formed/],
    ['XML of another kind', '<svg/>', /no MusicXML/],
    ['a score by time', '<score-timewise/>', /by parts/],
    ['entities', '<!DOCTYPE a [<!ENTITY b "c">]><score-partwise/>', /entities/],
    ['a score without chords', score(measure(FIRST + rest(8))), /no chord symbols/],
    ['a wrong encoding', new Uint8Array([0x7c, 0x20, 0xc3, 0x28]), /UTF-8/],
    ['a damaged archive', new Uint8Array([0x50, 0x4b, 3, 4, 0, 0, 9]), /damaged|no score/],
    ['an archive that swells', zipSync({ 'a.xml': new Uint8Array(11 * 1024 * 1024) }), /too much/],
    ['text that does not read', '| Dm7 | Hm7 |', /Line 1, column 9/],
  ])('%s', async (_, content, why) => {
    expect(await refusal(content)).toMatch(why)
  })
  it('a thousand mutated files of each format are read or refused, never worse', async () => {
    let seed = 7
    const random = (n: number) => {
      seed = (seed * 1103515245 + 12345) % 2147483648
      return seed % n
    }
    const texts = [...HARD.slice(0, 4)].flatMap((t) =>
      (['text', 'musicxml', 'abc'] as const).map((f) => writeChart(chart(t), t, f)),
    )
    const packed = zipSync({ 'a.xml': strToU8(texts[1] ?? '') })
    let refused = 0
    for (const [i, original] of [...texts.map((t) => strToU8(t)), packed].entries())
      for (let n = 0; n < (i === texts.length ? 1000 : 250); n++) {
        const bytes = original.slice()
        for (let k = 0; k <= random(6); k++)
          bytes[random(bytes.length)] = random(4) === 0 ? random(256) : 32 + random(95)
        if (!(await readChartFile(random(5) === 0 ? bytes.slice(0, random(bytes.length)) : bytes)).ok) refused++
      }
    expect(refused).toBeGreaterThan(100)
  })
})
