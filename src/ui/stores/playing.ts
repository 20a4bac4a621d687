import { atom } from 'nanostores'
import type { Mix, Score } from '../../sound/score.ts'
import { deskAt } from './desk.ts'
import { $hearing, silence } from './hearing.ts'
import { $kept, keepSetting } from './kept.ts'
import { $lineNotes, $lines, lineHere } from './lines.ts'
import { say } from './notices.ts'
import { $place, go } from './place.ts'
import { $planning } from './planning.ts'
import { routeRuns, type Source, scoreFor, startAt, type Tune, tuneOf } from './scoring.ts'

/** What plays; null while all is at rest. */
export const $playing = atom<Source | null>(null)

/** The chord the music is at, by its bar and beat; null at rest and while it is counted in. */
export const $music = atom<{ readonly bar: number; readonly beat: number } | null>(null)

/** How loud each is while a slider moves; what is kept follows when it rests. */
export const $mixing = atom<Mix | null>(null)

/** The band comes with the first note, so that the page does not wait for it. */
type Band = typeof import('../../sound/transport.ts')
let band: Band | null = null
let tune: Tune | null = null
let laid: { readonly key: string; readonly tempo: number } | null = null

const now = () => {
  const [place, kept] = [$place.get(), $kept.get()]
  return place && kept ? { place, kept, desk: deskAt(place, kept) } : null
}

/** What the view in sight would play. */
const sourceHere = (here: NonNullable<ReturnType<typeof now>>, over: Tune): Source => {
  const { place, kept, desk } = here
  if (place.view === 'route') return { kind: 'route', steps: routeRuns(over, desk) }
  const row = place.view === 'line' ? lineHere(place, kept) : undefined
  return row ? { kind: 'line', id: row.id } : { kind: 'laid' }
}

/** The score as it is asked for now; null where nothing can be played. */
export const scoreNow = (source: Source | null = null): { readonly score: Score; readonly tune: Tune } | null => {
  const here = now()
  const over = here && tuneOf(here.place, here.kept)
  if (!here || !over) return null
  return { score: scoreFor(source ?? sourceHere(here, over), over, here.place, here.desk), tune: over }
}

const mixNow = (kept: Mix): Mix => $mixing.get() ?? kept

/** The mix as it is heard now. */
export const mixHeard = (): Mix | null => {
  const here = now()
  return here && mixNow(here.desk.settings.mix)
}

let keeping: ReturnType<typeof setTimeout> | undefined
const REST_MS = 400
/** Changes the mix at once, and keeps it when it has come to rest. */
export const setMix = (mix: Mix): void => {
  $mixing.set(mix)
  band?.changeMix(mix)
  clearTimeout(keeping)
  keeping = setTimeout(() => void keepSetting('mix', mix).then(() => $mixing.set(null)), REST_MS)
}

/** The tick that sounds now, from the start of the chart; null at rest. */
export const musicTick = (): number | null => ($playing.get() && band ? band.positionNow() : null)

/** Begins at the bar in view, within what is played round. */
export const startPlaying = async (countIn?: boolean): Promise<void> => {
  const here = now()
  const over = here && tuneOf(here.place, here.kept)
  if (!here || !over) return say('There is no chart to play.')
  void silence()
  const source = sourceHere(here, over)
  const score = scoreFor(source, over, here.place, here.desk)
  $playing.set(source)
  tune = over
  laid = { key: keyOf(score), tempo: score.tempo }
  try {
    band = await import('../../sound/transport.ts')
    await band.playScore(
      score,
      mixNow(here.desk.settings.mix),
      startAt(over, score.span, here.place.bar),
      countIn ?? here.desk.settings.countIn,
    )
    // Stopped, or begun anew, while the sound was being made ready.
    if ($playing.get() === null) return band.stopScore()
    claimSound()
    watchMusic()
  } catch {
    $playing.set(null)
    say('This browser gives no sound. Everything else works without it.')
  }
}

export const stopPlaying = (): void => {
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
  const over = tuneOf(here.place, here.kept)
  if (!over) return stopPlaying()
  tune = over
  // Another route that comes into view is played on with; what was begun elsewhere goes on.
  const isOnRoute = before.kind === 'route' && here.place.view === 'route'
  const source = isOnRoute ? sourceHere(here, over) : before
  $playing.set(source)
  const score = scoreFor(source, over, here.place, here.desk)
  band.changeMix(mixNow(here.desk.settings.mix))
  const key = keyOf(score)
  if (key !== laid?.key) band.changeScore(score)
  else if (score.tempo !== laid.tempo) band.changeTempo(score)
  laid = { key, tempo: score.tempo }
}

let waiting: ReturnType<typeof setTimeout> | undefined
const CHANGE_MS = 60
/** Listens to everything that is played from; a run of changes counts once. */
export const startMusic = (): void => {
  let chart = $place.get()?.chart
  const changed = (): void => {
    if (!$playing.get()) return
    clearTimeout(waiting)
    waiting = setTimeout(playChanged, CHANGE_MS)
  }
  $place.listen((place) => {
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
const watchMusic = (): void => {
  const at = musicTick()
  if (!$playing.get()) return
  requestAnimationFrame(watchMusic)
  if (at === null || !tune || tune.timeline.length === 0) return
  const { soundings, length, beat } = tune.timeline
  const within = at % length
  const spot = soundings.find((s) => within < s.to)?.spot.spot
  if (!spot) return
  const place = { bar: spot.bar, beat: 1 + spot.at / beat }
  const before = $music.get()
  if (before?.bar === place.bar && before.beat === place.beat) return
  $music.set(place)
  const here = now()
  // An overlay that is tried out belongs to its chord: to go on would lose it.
  if (here?.desk.settings.follow && here.place.over === null && here.place.view !== 'charts') go(place)
}
