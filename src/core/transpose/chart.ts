import type { Chart, Key } from '../chart/chart.ts'
import type { Job } from '../chart/job.ts'
import type { Override } from '../chart/overrides.ts'
import type { Harmony } from '../chord/chord.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { readNote } from '../pitch/note.ts'
import { type Interval, writtenRoot } from '../pitch/transpose.ts'
import { transposeHarmony, transposeOverlay } from './chord.ts'

/** A job moved with its chart: the chord it points to takes its new name. */
export const transposeJob = (job: Job, by: Interval): Job => {
  if (!('of' in job)) return job
  const target = readNote(job.of, 0)
  return target.ok ? { ...job, of: writtenRoot(target.value.note, by).name + job.of.slice(target.value.end) } : job
}

/** What the player says about single chords, moved with its chart: jobs and home scales take their new names. */
export const transposeOverride = (said: Override, by: Interval): Override => {
  const home = said.home === undefined ? null : readOverlay(said.home)
  return {
    ...said,
    job: said.job && transposeJob(said.job, by),
    home: home?.ok ? transposeOverlay(home.value, by).name : said.home,
  }
}

/** A whole chart in another pitch; beats, sections and places in the text stay. */
export const transposeChart = (chart: Chart, by: Interval): Chart => ({
  ...chart,
  key: transposeKey(chart.key, by),
  written: chart.written.map((b) => transposeBar(b, by)),
  bars: chart.bars.map((b) => transposeBar(b, by)),
})

const transposeKey = (key: Key | null, by: Interval): Key | null => key && { ...key, tonic: writtenRoot(key.tonic, by) }

const transposeBar = <B extends { readonly key: Key | null; readonly spots: readonly { readonly chord: Harmony }[] }>(
  bar: B,
  by: Interval,
): B => ({
  ...bar,
  key: transposeKey(bar.key, by),
  spots: bar.spots.map((s) => ({ ...s, chord: transposeHarmony(s.chord, by) })),
})

/** A chart's text with its chords and its key moved where they stand; all else in it is left as it is. */
export const transposeChartText = (text: string, chart: Chart, by: Interval): string => {
  if (by.semitones === 0 && by.letters === 0) return text
  const moved = chart.written
    .flatMap((bar) => bar.spots)
    .filter(({ chord, text: t }) => chord.kind === 'chord' && text.slice(t.at, t.end) !== '%')
    .reverse()
    .reduce((so, { chord, text: t }) => {
      const beats = /:\d+(\.\d+)?$/.exec(so.slice(t.at, t.end))?.[0] ?? ''
      return so.slice(0, t.at) + transposeHarmony(chord, by).symbol + beats + so.slice(t.end)
    }, text)
  return moved.replace(/^(\s*key\s*=\s*)([A-G](?:bb|##|[b#♭♯x𝄫𝄪])?)/gimu, (_, head: string, named: string) => {
    const tonic = readNote(named, 0)
    return head + (tonic.ok ? writtenRoot(tonic.value.note, by).name : named)
  })
}
