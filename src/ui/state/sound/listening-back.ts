import { atom } from 'nanostores'
import {
  bandOver,
  barRound,
  beatsOfBars,
  feelOf,
  formOf,
  loopedTimeline,
  type Midi,
  msPerTick,
  oneVoice,
  readTune,
  type School,
  type Span,
  swingOf,
  swungNotes,
  TOGETHER_MS,
  type Tune,
} from '../../../core/index.ts'
import type { Score, ScoreNote } from '../../../sound/score.ts'
import type { TakeRow } from '../kept/row-types.ts'
import { say } from '../page/notices.ts'
import { latest } from '../tune/latest.ts'
import { $openChart } from '../tune/open-chart.ts'
import { silence } from './hearing.ts'
import { $playing, stopPlaying } from './playing.ts'

/** How a take is heard: with the band or alone, its sound or its notes, and how fast, 1 as it was played. */
export interface HowHeard {
  readonly band: boolean
  readonly sound: boolean
  readonly rate: number
}
export const $howHeard = atom<HowHeard>({ band: true, sound: true, rate: 1 })

/** The take that is heard, and which stretch of it, in ticks; null while none is. */
export const $heardTake = atom<{ readonly id: string; readonly span: Span } | null>(null)

const LOUDNESS = 0.85
/** What comes so much of a beat before a stretch was meant for its first beat. */
const EARLY = 0.125

const tuneOver = latest((text: string, overrides: TakeRow['overrides'], bars: TakeRow['bars'], school?: School) => {
  const read = readTune(text, overrides, school ? { school } : {})
  const form = read.ok ? formOf(read.value, bars) : null
  return read.ok && form ? { tune: read.value, form } : null
})
const tuneOfTake = ({ text, overrides, bars }: TakeRow) =>
  tuneOver(text, overrides, bars, $openChart.get()?.settings.school)

/** The band over a form that comes round and round, as far as a stretch of it reaches. */
const bandIn = (
  { tune, form }: { readonly tune: Tune; readonly form: Span },
  span: Span,
  tempo: number,
): readonly ScoreNote[] => {
  const feel = feelOf(tune.chart)
  const swing = swingOf(feel, tempo, $openChart.get()?.settings.swing ?? null)
  const once = swungNotes(bandOver(tune.chart, tune.timeline, feel, form), beatsOfBars(tune.timeline), swing)
  const size = form.to - form.from
  const [first, last] = [Math.floor(span.from / size), Math.ceil(span.to / size)]
  return Array.from({ length: Math.max(0, last - first) }, (_, k) => (first + k) * size - form.from)
    .flatMap((by) => once.map((n) => ({ ...n, at: n.at + by })))
    .filter((n) => n.at >= span.from - 1 && n.at < span.to)
}

/** A stretch of a take as a score; in whole bars of it, so that the band begins with one. */
export const takeScore = (row: TakeRow, span: Span, { band, sound, rate }: HowHeard): Score | null => {
  const over = tuneOfTake(row)
  if (!over) return null
  const { timeline } = over.tune
  const ms = msPerTick(timeline, row.tempo)
  const inTime = row.notes.map((n) => ({ ...n, at: n.at - row.offset / ms }))
  const there = inTime.filter((n) => n.at >= span.from - EARLY * timeline.beat && n.at < span.to)
  // The voice has one note at a time.
  const sung = oneVoice(sound ? [] : there, TOGETHER_MS / ms).map(
    (n): ScoreNote => ({
      ...{ part: 'line', at: Math.max(span.from, n.at), for: n.for, pitch: n.pitch as Midi },
      loudness: LOUDNESS * (n.velocity ?? 0.8),
    }),
  )
  const notes = [...(band ? bandIn(over, span, row.tempo) : []), ...sung].sort((a, b) => a.at - b.at)
  return { notes, span, beat: timeline.beat, beatsInBar: timeline.beatsInBar, tempo: row.tempo * rate }
}

/** The whole bars round a stretch of a take, in ticks; all of it where none is named. */
export const barsRound = (row: TakeRow, stretch: Span | null): Span => {
  const over = tuneOfTake(row)
  const timeline = over && (row.bars ? loopedTimeline(over.tune.timeline, over.form) : over.tune.timeline)
  const last = row.notes.at(-1)
  const [from, to] = stretch ? [stretch.from, stretch.to] : [row.notes[0]?.at ?? 0, last ? last.at + last.for : 1]
  const [first, end] = [Math.max(0, from), Math.max(1, to)].map((at, i) => timeline && barRound(timeline, at - i))
  return { from: first?.from ?? 0, to: end?.to ?? 3840 }
}

let transportIfOpen: typeof import('../../../sound/transport.ts') | null = null
let begun = 0
let end: (() => void) | null = null

export const stopListening = (): void => {
  begun++
  end?.()
  end = null
  $heardTake.set(null)
}

/** Hears a stretch of a take round and round, until it is stopped. */
export const listenBack = async (row: TakeRow, stretch: Span | null): Promise<void> => {
  const how = $howHeard.get()
  const span = barsRound(row, stretch)
  const sound = how.sound && row.sound !== null
  const score = takeScore(row, span, { ...how, sound })
  const openChart = $openChart.get()
  if (!score || !openChart) return say('This take cannot be heard: its chart does not read.')
  if ($playing.get()) stopPlaying()
  void silence()
  stopListening()
  const mine = begun
  $heardTake.set({ id: row.id, span })
  try {
    const transport = await import('../../../sound/transport.ts')
    transportIfOpen = transport
    const voice = sound ? await soundOf(row, span, how.rate) : null
    if (mine !== begun) return voice?.stop()
    if (sound && !voice) return void listenToNotes(row, stretch)
    await transport.playScore(score, openChart.settings.mix, span.from, false, voice?.start ?? null)
    if (mine !== begun) return voice?.stop()
    end = () => {
      transport.stopScore()
      voice?.stop()
    }
  } catch {
    if (mine !== begun) return
    stopListening()
    say('This browser gives no sound. Everything else works without it.')
  }
}

const listenToNotes = (row: TakeRow, stretch: Span | null): void => {
  say('The sound could not be read: the notes are heard.')
  void listenBack({ ...row, sound: null }, stretch)
}

const soundOf = async (row: TakeRow, span: Span, rate: number) => {
  const over = tuneOfTake(row)
  if (!over) return null
  const [{ takeSound }, { soundPlayer }] = await Promise.all([
    import('../../../sound/take-sound.ts'),
    import('../../../sound/take-player.ts'),
  ])
  const ms = msPerTick(over.tune.timeline, row.tempo)
  const at = (tick: number): number => tick * ms + row.offset - row.soundFrom
  const buffer = await takeSound(row.id, at(span.from), at(span.to))
  return buffer && soundPlayer(buffer, rate)
}

/** The tick of the take that sounds; null where none does. */
export const heardTick = (): number | null => ($heardTake.get() ? (transportIfOpen?.positionNow() ?? null) : null)

/** Another way to hear goes on from the same place. */
export const hearOtherwise = (row: TakeRow, change: Partial<HowHeard>): void => {
  $howHeard.set({ ...$howHeard.get(), ...change })
  const heard = $heardTake.get()
  if (heard?.id === row.id) void listenBack(row, heard.span)
}

/** What begins elsewhere ends the listening. */
export const startListeningBack = (): void => {
  $playing.listen((playing) => {
    if (playing && $heardTake.get()) stopListening()
  })
}
