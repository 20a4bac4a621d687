import { matchSorter } from 'match-sorter'
import { MATERIALS, nameOn, toAscii } from '../../core/index.ts'
import type { OpenChart } from '../state/tune/open-chart.ts'

const MOST = 7

const ROOT = /^\s*([A-G](?:bb|##|[b#♭♯x𝄪𝄫])?)\s*(.*)$/u

/** `over Eb7 to Abmaj7` for the open chord, as the player reads it. */
const overHere = (openChart: OpenChart): string => {
  const place = openChart.current?.reading?.place
  if (!place) return ''
  return ` over ${place.chord.symbol}${place.next ? ` to ${place.next.symbol}` : ''}`
}

/** Questions that need no root. */
const QUESTIONS = [
  'what can I play',
  'triad pairs',
  'which triads',
  'which pentatonics',
  'tritone sub triad',
  'side slip up a half step',
]

/** What the words so far could become: materials on the typed root, then the chords to lay them over. ASCII. */
export const suggest = (typed: string, openChart: OpenChart): readonly string[] => {
  const text = toAscii(typed)
  const over = /^(.*\sover\s+)(\S*)$/i.exec(text)
  if (over) {
    const chords = [
      ...new Set(openChart.spots.flatMap(({ spot }) => (spot.chord.kind === 'chord' ? [spot.chord.symbol] : []))),
    ]
    return matchSorter(chords, over[2] ?? '')
      .slice(0, MOST)
      .map((c) => (over[1] ?? '') + c)
  }
  const match = ROOT.exec(text)
  const asked = QUESTIONS.filter((q) => q.startsWith(text.trim().toLowerCase()) && text.trim() !== '')
  if (!match && overHere(openChart)) {
    const rootless = matchSorter(MATERIALS, text.trim(), {
      keys: [(m) => nameOn('', m).trim(), (m) => [...m.otherNames]],
    })
    return [...asked, ...rootless.map((m) => nameOn('', m).trim())]
      .slice(0, MOST)
      .map((words) => words + overHere(openChart))
  }
  if (!match || /\sover\s/i.test(text) || text.includes('&') || text.includes('|')) return []
  const [, root = '', rest = ''] = match
  const found = matchSorter(MATERIALS, rest, { keys: [(m) => nameOn('', m).trim(), (m) => [...m.otherNames]] })
  return found.slice(0, MOST).map((m) => nameOn(root, m) + overHere(openChart))
}
