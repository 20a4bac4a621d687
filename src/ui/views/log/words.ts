import { format } from 'date-fns'
import { type PracticeFamily, toGlyphs } from '../../../core/index.ts'
import type { LogRow } from '../../state/kept/row-types.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { keyWords } from '../overlay/key-words.ts'

export const FAMILY_WORDS: Readonly<Record<PracticeFamily, string>> = {
  triad: 'triads',
  seventh: 'sevenths',
  ninth: 'ninths and more',
  pentatonic: 'pentatonics',
  mode: 'scales',
  symmetric: 'symmetric',
  bebop: 'bebop',
  blues: 'blues',
  quartal: 'fourths',
  pair: 'pairs',
  notes: 'just notes',
  route: 'routes',
  line: 'lines',
  study: 'studies',
  'out-in': 'out and in',
  combine: 'combined',
}

export const dayText = (at: string): string => format(new Date(at), 'EEE d MMM')
export const clockText = (at: string): string => format(new Date(at), 'HH:mm')

/** What an entry says, in a few words. */
export const entryWords = (entry: LogRow, itemName: string | null, openChart: OpenChart): string => {
  if (entry.kind === 'word') return entry.text ?? ''
  const key = entry.key === null ? '' : ` in ${keyWords(entry.key, openChart)}`
  const tempo = entry.tempo === null ? '' : ` at ${entry.tempo}`
  const said = entry.answered
    ? `: ${toGlyphs(entry.answered.right)}${entry.answered.given === entry.answered.right ? '' : ` taken for ${toGlyphs(entry.answered.given)}`}`
    : ''
  return `${itemName ?? (entry.kind === 'quiz' ? 'quiz' : 'an item that is gone')}${key}${tempo}${said}`
}
