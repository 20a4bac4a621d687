import { keyName, metreName, spotsOf } from '../core/index.ts'
import type { ReadFile } from '../formats/files.ts'

const withoutExtension = (name: string): string => name.replace(/\.[A-Za-z]{1,10}$/, '').trim()

/** What was read from a file and what was left out, before anything is kept. A chart without a title takes the file's. */
export const importAnswer = ({ chart, text, leftOut, format, tunes, chosen }: ReadFile, fileName: string) => {
  const { tempo, pickup } = chart
  const isNamed = chart.title !== 'Untitled'
  return {
    format,
    title: isNamed ? chart.title : withoutExtension(fileName) || 'Untitled',
    text: isNamed
      ? text
      : text.replace(/^title = Untitled$/m, () => `title = ${withoutExtension(fileName) || 'Untitled'}`),
    read: {
      bars: chart.bars.length,
      chords: spotsOf(chart).filter((s) => s.chord.kind === 'chord').length,
      key: chart.key && keyName(chart.key),
      metre: [...new Set(chart.written.map((b) => metreName(b.metre)))].join(', '),
      tempo,
      pickup,
      sections: chart.written.flatMap((b) => (b.section === null ? [] : [b.section])),
    },
    leftOut,
    ...(tunes ? { tunes, chosen } : {}),
  }
}
