// Files of every format, mutated: each is answered, within bounds of time and memory, and nothing is thrown.
import { strToU8, zipSync } from 'fflate'
import { lineOf, midi, readChart, ticks, tuneOf } from '../../src/core/index.ts'
import { readChartFile, writeChart } from '../../src/formats/files.ts'
import { readMidiLine } from '../../src/formats/line-midi.ts'
import { writeLine } from '../../src/formats/line-write.ts'
import { openFile } from '../../src/formats/open-file.ts'
import { readAbcLine } from '../../src/formats/read-abc-line.ts'
import { readMusicXmlLine } from '../../src/formats/read-musicxml-line.ts'
import { writeBandMidi } from '../../src/formats/write-midi.ts'
import { seeded } from './seeded.ts'

const MUTATED = Number(process.env.MUTATED ?? 100_000)
const chance = seeded(11)
const below = (n: number): number => Math.floor(chance() * n)

const TEXT =
  'title = Mooring\nkey = Eb minor\ntempo = 140\nfeel = swing\npickup = 1\n== A\n| Bb7 |: 3/4 Ebm7 Ab7 | 4/4 Dbmaj7:3 ? |1. (Gb|Fm7) | % :|2. N.C. | Bbb7(b9,#11) |\n'
const read = readChart(TEXT)
if (!read.ok) throw new Error('the chart must read')
const line = lineOf(
  Array.from({ length: 60 }, (_, i) => ({
    at: ticks(i * 320),
    for: ticks(320 - (i % 3) * 40),
    pitch: midi(50 + ((i * 5) % 30)),
  })),
)
const as = (format: 'musicxml' | 'abc' | 'midi'): Uint8Array => {
  const written = writeLine('Mooring', line, read.value, format)
  if (!written.ok) throw new Error(written.error.why)
  return typeof written.value === 'string' ? strToU8(written.value) : written.value
}
const ABC =
  'X:1\nT:Mooring\nM:6/8\nL:1/8\nQ:3/8=100\nP:AB\nK:Gdor\nV:1\n|:"Gm"(3GAB {c}d2 !segno!e|1 [GB]3-G3:|2 z6!dacoda!|"C7"c6!D.S.alcoda!|!coda!"F"F6|]\nV:2\nG,6|Z2|\n'
const KINDS: Readonly<Record<string, Uint8Array>> = {
  'chart text': strToU8(TEXT),
  'MusicXML of a chart': strToU8(writeChart(read.value, TEXT, 'musicxml')),
  'ABC of a chart': strToU8(writeChart(read.value, TEXT, 'abc')),
  'MusicXML of a line': as('musicxml'),
  'ABC of a line': as('abc'),
  'a tune': strToU8(ABC),
  MIDI: as('midi'),
  'MIDI of a band': writeBandMidi(tuneOf(read.value, []), null, { feel: null, tempo: null }),
  'packed MusicXML': zipSync({
    'META-INF/container.xml': strToU8('<container><rootfiles><rootfile full-path="a.xml"/></rootfiles></container>'),
    'a.xml': as('musicxml'),
  }),
}

/** One of: a byte changed, bytes left out, bytes doubled, a digit made large, two places swapped. */
const mutated = (whole: Uint8Array): Uint8Array => {
  let bytes = Buffer.from(whole)
  for (let n = 0; n <= below(4); n++) {
    const [a, b] = [below(bytes.length), below(bytes.length)].sort((x, y) => x - y) as [number, number]
    const near = Math.min(bytes.length, a + 1 + below(40))
    switch (below(5)) {
      case 0:
        bytes[a] = below(256)
        break
      case 1:
        bytes = Buffer.concat([bytes.subarray(0, a), bytes.subarray(near)])
        break
      case 2:
        bytes = Buffer.concat([bytes.subarray(0, near), bytes.subarray(a, near), bytes.subarray(near)])
        break
      case 3:
        bytes = Buffer.concat([bytes.subarray(0, a), Buffer.from('9999999'.slice(0, 1 + below(7))), bytes.subarray(a)])
        break
      default:
        bytes = Buffer.concat([bytes.subarray(0, a), bytes.subarray(b), bytes.subarray(a, b)])
    }
    if (bytes.length === 0) return bytes
  }
  return bytes
}

const asLine = async (bytes: Uint8Array): Promise<boolean> => {
  const opened = openFile(bytes)
  if (!opened.ok) return false
  if (opened.value.kind === 'midi') return readMidiLine(bytes, null, 'nearest').ok
  const { kind, text } = opened.value
  return kind === 'xml' ? readMusicXmlLine(text).ok : (await readAbcLine(text)).ok
}

const kinds = Object.entries(KINDS)
for (const [name, whole] of kinds) {
  const count = Math.ceil(MUTATED / kinds.length)
  let [charts, lines, thrown, slowest] = [0, 0, 0, 0]
  for (let i = 0; i < count; i++) {
    const bytes = mutated(whole)
    const from = performance.now()
    try {
      if ((await readChartFile(bytes)).ok) charts++
      if (await asLine(bytes)) lines++
    } catch (error) {
      if (thrown++ < 3) console.error(`  ${name}: ${error instanceof Error ? error.stack : error}`)
    }
    slowest = Math.max(slowest, performance.now() - from)
  }
  console.log(
    `${count} × ${name}, mutated: ${charts} read as a chart, ${lines} as a line, the others refused in words; ${thrown} threw; slowest ${slowest.toFixed(0)} ms; memory ${(process.memoryUsage().rss / 1e6).toFixed(0)} MB`,
  )
}
