import {
  type AnalysedSpot,
  beatOf,
  beatsOf,
  byBar,
  type Chain,
  type Chart,
  dominantsBehind,
  homeName,
  jobName,
  keyName,
  metreName,
  type Override,
  overrideAt,
  placeWithHome,
  type School,
  stretchesOf,
  tuneOf,
} from '../core/index.ts'

const homeOf = (s: AnalysedSpot, overrides: readonly Override[], beat: number, school: School): string | null => {
  if (s.spot.chord.kind === 'no chord') return null
  const put = overrideAt(overrides, s.spot.bar, beat)?.home
  return homeName(placeWithHome(s.spot.chord, s.next, school, s.job, put).home.first)
}

const chordAnswer = (s: AnalysedSpot, overrides: readonly Override[], school: School) => {
  const beat = beatOf(s.spot)
  const behind = s.spot.chord.kind === 'chord' ? dominantsBehind(s.spot.chord) : null
  return {
    symbol: s.spot.chord.symbol,
    beat,
    beats: beatsOf(s.spot),
    key: s.key && keyName(s.key),
    degree: s.degree,
    job: s.job && jobName(s.job),
    target: s.job && 'of' in s.job ? s.job.of : null,
    resolves: s.resolves,
    home: homeOf(s, overrides, beat, school),
    reason: s.reason,
    ...(behind ? { dominants: behind.map((b) => `${b.dominant.root.name}7`) } : {}),
  }
}

const barsOf = ({ from, to }: Pick<Chain, 'from' | 'to'>) => ({
  fromBar: from.spots[0]?.spot.bar ?? 0,
  toBar: to.spots.at(-1)?.spot.bar ?? 0,
})

/** A chart's harmony as `POST /charts/analyse` answers it. The chart repeats: its last chord looks on to its first. */
export const analysisAnswer = (chart: Chart, overrides: readonly Override[], school: School) => {
  const { key, spots, chains } = tuneOf(chart, overrides).analysis
  const inBars = byBar(spots)
  return {
    key: keyName(key),
    bars: chart.bars.map((bar) => ({
      number: bar.number,
      section: bar.section,
      metre: metreName(bar.metre),
      chords: (inBars.get(bar.number) ?? []).map((s) => chordAnswer(s, overrides, school)),
    })),
    chains: chains.map((c) => ({ kind: c.kind, ...barsOf(c), target: c.target })),
    stretches: stretchesOf(spots, school).map((s) => ({
      scale: s.scale,
      fromBar: s.first.spot.bar,
      toBar: s.last.spot.bar,
      joins: s.joins.map((j) => ({ from: j.from.name, to: j.to.name })),
    })),
  }
}
