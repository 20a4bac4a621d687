import {
  formOf,
  type KeptPlan,
  loopedFrom,
  loopedTimeline,
  msPerTick,
  type Planted,
  type PlayedNote,
  planIn,
  reverse,
  simulatedTake,
  type TakeValues,
  TIDY,
  type Tune,
} from '../../../core/index.ts'
import type { Listener, NoteIn, Opened } from '../../../input/notes.ts'
import { listeningFor, type PlayingIn, playingInNow } from '../takes/manner.ts'
import { $openChart } from '../tune/open-chart.ts'

/** Notes of the keys on the screen, while they are listened to. */
let onScreen: ((note: NoteIn) => void) | null = null
export const playOnScreen = (kind: NoteIn['kind'], pitch: number): void =>
  onScreen?.({ kind, pitch, velocity: 0.7, at: performance.now() })

/** What the simulated player needs: what it plays over, and when the first beat is by now, ms of the page's clock. */
export interface Playground {
  readonly tune: Tune
  readonly plan: KeptPlan | null
  readonly bars: TakeValues['bars']
  readonly tempo: number
  readonly firstBeat: () => number
  readonly choruses: number
}

const RANGE = [55, 81] as const

/** So many choruses differ; after them they come again. */
const DIFFERENT = 4

/** One chorus after another of the simulated player, in ticks from the first bar of what is looped. */
const simulatedNotes = (
  { tune, plan, bars, tempo, choruses }: Playground,
  { looseness, wrong, fault }: PlayingIn['simulated'],
): readonly PlayedNote[] => {
  const settings = $openChart.get()?.settings
  const form = formOf(tune, bars)
  const laid = planIn(tune.chart, plan)
  if (!settings || !form || !laid.ok) return []
  const timeline = loopedTimeline(tune.timeline, form)
  const own = loopedFrom(laid.value, form)
  const whole = own.length > 0 ? own : [{ from: 0, overlay: null }]
  const manner = { ...TIDY, looseness, wrong }
  const { school, weights } = settings
  const one = (planted: Planted | null) =>
    simulatedTake({ plan: whole, tempo, manner, fault: planted, school, weights, range: RANGE }, timeline, Math.random)
  const different = Array.from({ length: Math.min(DIFFERENT, choruses) }, () => one(fault) ?? one(null) ?? [])
  return Array.from({ length: choruses }, (_, k) =>
    (different[k % different.length] ?? []).map((n) => ({ ...n, at: n.at + k * timeline.length })),
  ).flat()
}

/** Opens what one plays from. */
export const openSource = async (playground: Playground | null, listener: Listener): Promise<Opened> => {
  const how = playingInNow()
  switch (how.source) {
    case 'keys': {
      const { openTypedKeys } = await import('../../../input/typed-keys.ts')
      const opened = openTypedKeys(() => playingInNow().low - writtenBy(), listener)
      onScreen = listener.onNote
      if (!opened.ok) return opened
      const stop = (): void => {
        onScreen = null
        opened.instrument.stop()
      }
      return { ok: true, instrument: { ...opened.instrument, stop } }
    }
    case 'midi': {
      const { openMidi } = await import('../../../input/midi-in.ts')
      return openMidi(how, listener)
    }
    case 'microphone': {
      const { openMicrophone } = await import('../../../input/microphone.ts')
      return openMicrophone(listeningFor(how), listener)
    }
    case 'simulated': {
      if (!playground) return { ok: false, why: 'The simulated player plays with the band only.' }
      const [{ openSimulated }, { simulatedVoice }, { clockAhead }] = await Promise.all([
        import('../../../input/simulated.ts'),
        import('../../../sound/simulated-voice.ts'),
        import('../../../sound/clock.ts'),
      ])
      const ms = msPerTick(playground.tune.timeline, playground.tempo)
      const notes = simulatedNotes(playground, how.simulated).map((n) => ({
        ...{ at: n.at * ms, for: n.for * ms, pitch: n.pitch, velocity: n.velocity ?? 0.7 },
      }))
      const voice = simulatedVoice()
      return openSimulated(
        notes,
        playground.firstBeat,
        (n, at) => voice.strike(n.pitch, Math.max(0, (at + clockAhead()) / 1000), n.for / 1000, n.velocity),
        voice.stream,
        listener,
      )
    }
  }
}

/** Keys are in written pitch; notes are kept in concert. */
const writtenBy = (): number => -reverse($openChart.get()?.instrument.written ?? { letters: 0, semitones: 0 }).semitones
