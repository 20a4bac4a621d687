import { atom } from 'nanostores'
import { beatOf, type Tune } from '../../../core/index.ts'
import type { Mix, Score } from '../../../sound/score.ts'
import { $address, go } from '../address/address.ts'
import { slideSetting } from '../kept/keep-setting.ts'
import { $kept } from '../kept/kept.ts'
import { $lineNotes, $lines, lineHere } from '../line/lines.ts'
import { draftHere } from '../line/making.ts'
import { say } from '../page/notices.ts'
import { $planning } from '../route/planning.ts'
import { concertTune, startAt } from '../tune/concert.ts'
import { $openChart } from '../tune/open-chart.ts'
import { $hearing, silence } from './hearing.ts'
import { routeRuns, type Source, scoreFor } from './scoring.ts'

/** What plays; null while all is at rest. */
export const $playing = atom<Source | null>(null)

/** The chord the music is at, by its bar and beat; null at rest and while it is counted in. */
export const $music = atom<{ readonly bar: number; readonly beat: number } | null>(null)

/** The band comes with the first note, so that the page does not wait for it. */
type Band = typeof import('../../../sound/transport.ts')
let band: Band | null = null
let tune: Tune | null = null
/** Counts how often playing began or ended: what was under way for an earlier one is over. */
let begun = 0
let laid: { readonly key: string; readonly tempo: number } | null = null

const now = () => {
  const [address, kept] = [$address.get(), $kept.get()]
  const openChart = $openChart.get()
  return address && kept && openChart ? { address, kept, openChart } : null
}

/** What the view in sight would play. */
const sourceHere = (here: NonNullable<ReturnType<typeof now>>, over: Tune): Source => {
  const { address, kept, openChart } = here
  if (address.view === 'route') return { kind: 'route', steps: routeRuns(over, openChart) }
  const draft = draftHere()
  if (draft) return { kind: 'draft', line: draft.line }
  const row = address.view === 'line' ? lineHere(address, kept) : undefined
  return row ? { kind: 'line', id: row.id } : { kind: 'laid' }
}

/** The score as it is asked for now; null where nothing can be played. */
export const scoreNow = (source: Source | null = null): { readonly score: Score; readonly tune: Tune } | null => {
  const here = now()
  const over = here && concertTune(here.address, here.kept)
  if (!here || !over) return null
  return { score: scoreFor(source ?? sourceHere(here, over), over, here.address, here.openChart), tune: over }
}

/** The mix as it is heard now. */
export const mixHeard = (): Mix | null => now()?.openChart.settings.mix ?? null

/** Changes the mix at once; one that slides is one thing to undo. */
export const setMix = (mix: Mix): void => {
  slideSetting('mix', mix)
  band?.changeMix(mix)
}

/** The tick that sounds now, from the start of the chart; null at rest. */
export const musicTick = (): number | null => ($playing.get() && band ? band.positionNow() : null)

/** The band from the first bar of what is played round, after a count, with nothing over it. */
export const startBand = (): Promise<void> => startPlaying(true, { kind: 'band' })

/** Begins at the bar in view, within what is played round. */
export const startPlaying = async (countIn?: boolean, as: Source | null = null): Promise<void> => {
  const here = now()
  const over = here && concertTune(here.address, here.kept)
  if (!here || !over) return say('There is no chart to play.')
  void silence()
  const mine = ++begun
  const source = as ?? sourceHere(here, over)
  const score = scoreFor(source, over, here.address, here.openChart)
  $playing.set(source)
  tune = over
  laid = { key: keyOf(score), tempo: score.tempo }
  try {
    band = await import('../../../sound/transport.ts')
    if (mine !== begun) return
    await band.playScore(
      score,
      here.openChart.settings.mix,
      as ? score.span.from : startAt(over, score.span, here.address.bar),
      countIn ?? here.openChart.settings.countIn,
    )
    // Stopped, or begun anew, while the sound was being made ready.
    if (mine !== begun) return $playing.get() === null ? band.stopScore() : undefined
    claimSound()
    watchMusic(mine)
  } catch {
    if (mine !== begun) return
    $playing.set(null)
    say('This browser gives no sound. Everything else works without it.')
  }
}

export const stopPlaying = (): void => {
  begun++
  band?.stopScore()
  $playing.set(null)
  $music.set(null)
}

export const playOrStop = (): void => {
  if ($hearing.get()) void silence()
  else if ($playing.get()) stopPlaying()
  else void startPlaying()
}

const keyOf = ({ notes, span }: Score): string => JSON.stringify([notes, span])

/** Plays on with what has changed: another tempo, feel, loop, overlay or note. */
const playChanged = (): void => {
  const before = $playing.get()
  const here = now()
  if (!before || !here || !band) return
  const over = concertTune(here.address, here.kept)
  if (!over) return stopPlaying()
  tune = over
  // Another route that comes into view is played on with; what was begun elsewhere goes on.
  const isOnRoute = before.kind === 'route' && here.address.view === 'route'
  const source = isOnRoute ? sourceHere(here, over) : before
  $playing.set(source)
  const score = scoreFor(source, over, here.address, here.openChart)
  band.changeMix(here.openChart.settings.mix)
  const key = keyOf(score)
  if (key !== laid?.key) band.changeScore(score)
  else if (score.tempo !== laid.tempo) band.changeTempo(score)
  laid = { key, tempo: score.tempo }
}

let waiting: ReturnType<typeof setTimeout> | undefined
const CHANGE_MS = 60
/** Listens to everything that is played from; a run of changes counts once. */
export const startMusic = (): void => {
  let chart = $address.get()?.chart
  const changed = (): void => {
    if (!$playing.get()) return
    clearTimeout(waiting)
    waiting = setTimeout(playChanged, CHANGE_MS)
  }
  $address.listen((place) => {
    if (place?.chart !== chart && $playing.get()) stopPlaying()
    chart = place?.chart
    changed()
  })
  for (const store of [$kept, $lines, $lineNotes, $planning]) store.listen(changed)
}

/** One tab owns the sound: another that begins silences this one. */
const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('crossfade-sound')
const claimSound = (): void => channel?.postMessage('mine')
if (channel) channel.onmessage = () => $playing.get() && stopPlaying()

/** Keeps `$music` at the chord that sounds, as long as something plays; with follow on, the chord in view goes along. */
const watchMusic = (mine: number): void => {
  const followMusic = (): void => {
    if (mine !== begun) return
    requestAnimationFrame(followMusic)
    showMusic()
  }
  followMusic()
}

const showMusic = (): void => {
  const at = musicTick()
  if (at === null || !tune || tune.timeline.length === 0) return
  const { soundings, length } = tune.timeline
  const within = at % length
  const spot = soundings.find((s) => within < s.to)?.spot.spot
  if (!spot) return
  const place = { bar: spot.bar, beat: beatOf(spot) }
  const before = $music.get()
  if (before?.bar === place.bar && before.beat === place.beat) return
  $music.set(place)
  const here = now()
  // An overlay that is tried out belongs to its chord: to go on would lose it.
  if (here?.openChart.settings.follow && here.address.over === null && here.address.view !== 'charts') go(place)
}
