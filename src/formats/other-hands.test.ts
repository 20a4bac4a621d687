import { strToU8 } from 'fflate'
import { serialize, serializeAbc } from 'musicxml-io'
import { describe, expect, it } from 'vitest'
import { keyName, metreName, readChord } from '../core/index.ts'
import { keyOfFifths } from './fifths.ts'
import { readChartFile } from './files.ts'
import { readAbcLine } from './read-abc-line.ts'
import { readMusicXmlLine } from './read-musicxml-line.ts'
import { heardOf, type Piece, type PieceBar, pieceOf } from './testing/pieces.ts'
import { scoreOf, scoreOfElements } from './testing/writers.ts'
import type { ReadLine } from './voices.ts'

const seeds = (from: number, count: number): readonly number[] => Array.from({ length: count }, (_, i) => from + i)
const soundsOf = ({ line }: ReadLine) => line.map((n) => [n.at, n.for, n.pitch])

/** What a chart of the piece holds, bar by bar as it is played. */
const chartOf = ({ bars, order }: Piece) =>
  order.map((i) => {
    const { metre, fifths, chord } = bars[i] as PieceBar
    const key = keyOfFifths(fifths, 'major')
    const read = readChord(chord.root + chord.suffix)
    return [metreName(metre), key && keyName(key), read.ok && read.value.symbol]
  })
const readAsChart = async (source: string) => {
  const read = await readChartFile(strToU8(source))
  if (!read.ok) throw new Error(read.error.why)
  return read.value.chart.bars.map((b) => [
    metreName(b.metre),
    b.key && keyName(b.key),
    b.spots.map((s) => s.chord.symbol).join(' '),
  ])
}

describe('files that packages of others wrote are read as the music they were made of', () => {
  it.each(seeds(1, 30))(
    'score %i: its line with repeats, endings and ties, its chart with keys and metres',
    async (seed) => {
      const piece = pieceOf(seed)
      const source = serialize(scoreOf(piece))
      const line = readMusicXmlLine(source)
      expect(line.ok && soundsOf(line.value)).toEqual(heardOf(piece))
      expect(await readAsChart(source)).toEqual(chartOf(piece))
    },
  )
  // Its writer leaves out metres on the way, and writes a rest in a triplet too short.
  it.each(seeds(101, 20))('tune %i', async (seed) => {
    const piece = pieceOf(seed, true)
    const source = serializeAbc(scoreOf(piece), { includeChordSymbols: true })
    const line = await readAbcLine(source)
    expect(line.ok && soundsOf(line.value)).toEqual(heardOf(piece))
    expect(await readAsChart(source)).toEqual(chartOf(piece))
  })
  it.each(seeds(201, 10))('score %i, put together element by element', (seed) => {
    const { bars } = pieceOf(seed)
    const piece = { bars, order: bars.map((_, i) => i) }
    const line = readMusicXmlLine(scoreOfElements(piece))
    expect(line.ok && soundsOf(line.value)).toEqual(heardOf(piece))
  })
})
