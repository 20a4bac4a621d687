import type { Chart } from '../chart/chart.ts'
import type { Job } from '../chart/job.ts'
import type { Override } from '../chart/overrides.ts'
import { buildChord, type Chord, type Harmony } from '../chord/chord.ts'
import { buildPolychord, readChord } from '../chord/parse.ts'
import { printSymbol } from '../chord/print.ts'
import { notesOverlay, type Overlay, pairOf, placeOn } from '../material/overlay.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { type Note, readNote } from '../pitch/note.ts'
import { type Interval, moveRoot, moveUnder, writtenRoot } from '../pitch/transpose.ts'
import type { Question } from './question.ts'

/** A chord moved by an interval, its bass and upper chord with it. Roots take plain names where they must. */
export const transposeChord = (chord: Chord, by: Interval): Chord => {
  if (chord.slash) {
    const written = readChord(chord.symbol)
    if (!written.ok) throw new Error(`a printed chord does not read: ${chord.symbol}`)
    return transposeChord(written.value, by)
  }
  const poly = /^\((.+)\|(.+)\)$/.exec(chord.symbol)
  if (poly) {
    const [upper, lower] = [poly[1], poly[2]].map((s) => readChord(s ?? ''))
    if (!upper?.ok || !lower?.ok) throw new Error(`a printed polychord does not read: ${chord.symbol}`)
    const low = transposeChord(lower.value, by)
    const high = transposeChord(upper.value, by)
    return buildPolychord(high, low)
  }
  const root = writtenRoot(chord.root, by)
  const bass = chord.bass === chord.root ? root : moveUnder(chord.bass, chord.root, root)
  return buildChord(root, bass, chord.quality, printSymbol(root, bass, chord.quality.recipe))
}

export const transposeHarmony = (harmony: Harmony, by: Interval): Harmony =>
  harmony.kind === 'chord' ? transposeChord(harmony, by) : harmony

/** An overlay moved by an interval, spelled anew from its moved root. */
export const transposeOverlay = (overlay: Overlay, by: Interval): Overlay => {
  const root = writtenRoot(overlay.root, by)
  if (overlay.groups) return pairOf(transposeOverlay(overlay.groups[0], by), transposeOverlay(overlay.groups[1], by))
  if (overlay.material) return placeOn(root, overlay.material)
  const [first = root, ...rest] = overlay.notes.map((n): Note => moveUnder(n, overlay.root, root))
  return notesOverlay([first, ...rest])
}

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
  key: chart.key && { ...chart.key, tonic: writtenRoot(chart.key.tonic, by) },
  written: chart.written.map((b) => transposeBar(b, by)),
  bars: chart.bars.map((b) => transposeBar(b, by)),
})

const transposeBar = <B extends { readonly spots: readonly { readonly chord: Harmony }[] }>(
  bar: B,
  by: Interval,
): B => ({
  ...bar,
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
  const { key } = chart
  if (!key) return moved
  const name = writtenRoot(key.tonic, by).name
  return moved.replace(/^(\s*key\s*=\s*)[A-G](?:bb|##|[b#♭♯x𝄫𝄪])?/imu, (_, head: string) => head + name)
}

const rootsOf = (q: Question): readonly Note[] => {
  if (q.kind !== 'reading') return []
  const overlay = q.overlay.groups?.map((g) => g.root) ?? [q.overlay.root]
  return [...overlay, q.chord.root, ...(q.next ? [q.next.root] : [])]
}

/**
 * The interval, or the one a letter away, whichever keeps every root of the question plain: so that all of them are
 * respelled together and a B does not stand beside a D flat.
 */
const plainest = (q: Question, by: Interval): Interval => {
  const plain = (i: Interval) =>
    rootsOf(q).filter(
      (r) => writtenRoot(r, i) === moveRoot(r, i) && moveRoot(r, i).letter === (((r.letter + i.letters) % 7) + 7) % 7,
    )
  const ways = [by, { ...by, letters: by.letters - 1 }, { ...by, letters: by.letters + 1 }]
  return ways.find((way) => plain(way).length === rootsOf(q).length) ?? by
}

/** A whole question in another pitch: what a transposing player typed, as the core and the address keep it. */
export const transposeQuestion = (q: Question, interval: Interval): Question => {
  const by = interval.semitones === 0 ? interval : plainest(q, interval)
  switch (q.kind) {
    case 'reading':
      return {
        kind: q.kind,
        overlay: transposeOverlay(q.overlay, by),
        chord: transposeChord(q.chord, by),
        next: q.next && transposeChord(q.next, by),
        sounding: q.sounding && transposeChord(q.sounding, by),
      }
    case 'material':
      return { kind: q.kind, overlay: transposeOverlay(q.overlay, by) }
    case 'chord':
      return { kind: q.kind, chord: transposeChord(q.chord, by) }
    case 'pairs':
    case 'overlays':
      return { ...q, chord: transposeChord(q.chord, by), next: q.next && transposeChord(q.next, by) }
    case 'chart':
      return { kind: q.kind, chart: transposeChart(q.chart, by), text: transposeChartText(q.text, q.chart, by) }
  }
}
