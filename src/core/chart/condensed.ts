import { readNote } from '../pitch/note.ts'
import type { AnalysedSpot, Analysis } from './analyse.ts'
import type { Chain } from './chains.ts'
import type { Chart, Key } from './chart.ts'
import { spotsInChart } from './context.ts'
import { type Hold, holdsOf } from './holds.ts'
import { type Override, splitChart } from './overrides.ts'

interface KeyWords {
  readonly tonic: string
  readonly mode: Key['mode']
}
type Judged = Pick<AnalysedSpot, 'job' | 'degree' | 'resolves' | 'reason' | 'yours'>

/** An analysis in plain values that can be sent: what was found of each spot, and the chains by their chords' places. */
export interface Condensed {
  readonly key: KeyWords
  readonly spots: readonly (Judged & { readonly key: KeyWords | null })[]
  readonly chains: readonly (Pick<Chain, 'kind' | 'target'> & { readonly from: number; readonly to: number })[]
}

const wordsOf = ({ tonic, mode }: Key): KeyWords => ({ tonic: tonic.name, mode })
const keyFrom = ({ tonic, mode }: KeyWords): Key => {
  const read = readNote(tonic, 0)
  if (!read.ok) throw new Error(`not a tonic: ${tonic}`)
  return { tonic: read.value.note, mode }
}

export const condense = ({ key, spots, chains }: Analysis): Condensed => ({
  key: wordsOf(key),
  spots: spots.map(({ job, degree, resolves, reason, yours, key: own }) => ({
    ...{ job, degree, resolves, reason, yours },
    key: own && wordsOf(own),
  })),
  chains: chains.map(({ kind, target, from, to }) => ({ kind, target, from: from.at, to: to.at })),
})

/** The analysis of the very chart it was condensed from, with its chords again. */
export const expand = (
  { key, spots, chains }: Condensed,
  chart: Chart,
  repeats: boolean,
  overrides: readonly Override[],
): Analysis => {
  const plain = spotsInChart(splitChart(chart, overrides), repeats)
  const holds = holdsOf(plain)
  return {
    key: keyFrom(key),
    spots: plain.map((s, i): AnalysedSpot => {
      const found = spots[i]
      if (!found) throw new Error(`nothing was found of spot ${i}`)
      return { ...s, ...found, key: found.key && keyFrom(found.key) }
    }),
    chains: chains.map(({ kind, target, from, to }) => ({
      ...{ kind, target },
      from: holds[from] as Hold,
      to: holds[to] as Hold,
    })),
  }
}
