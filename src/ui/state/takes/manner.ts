import { atom } from 'nanostores'
import { compass, PLANTED, type Planted } from '../../../core/index.ts'
import { type Listening, USUAL_LISTENING } from '../../../input/tracking.ts'
import { keepSetting, slideSetting } from '../kept/keep-setting.ts'
import { standingOf } from '../kept/rows.ts'

export const SURFACES = ['keys', 'neck'] as const
export const SOURCES = ['keys', 'midi', 'microphone', 'simulated'] as const
export type SourceName = (typeof SOURCES)[number]

/** What the simulated player does. */
export interface SimulatedManner {
  readonly looseness: number
  readonly wrong: number
  readonly fault: Planted | null
}

/** How one plays in: from what, and what is known of it. Delays in ms by the name of the device. */
export interface PlayingIn {
  readonly source: SourceName
  readonly device: string | null
  readonly channel: number | null
  /** What is played on the screen. */
  readonly surface: (typeof SURFACES)[number]
  /** The lowest C of the computer's keys, a MIDI number. */
  readonly low: number
  /** Whose range the microphone listens in; null for any. */
  readonly compass: string | null
  /** Hertz of the A. */
  readonly tuning: number
  readonly gate: number
  readonly delays: Readonly<Record<string, number>>
  readonly simulated: SimulatedManner
  /** The controller of a pedal that goes on; null where none was learnt. */
  readonly pedal: number | null
}

const USUAL: PlayingIn = {
  ...{ source: 'keys', device: null, channel: null, surface: 'keys', low: 48, compass: null, tuning: 440 },
  ...{ gate: USUAL_LISTENING.gate, delays: {}, pedal: null },
  simulated: { looseness: 10, wrong: 0, fault: null },
}
export const TUNING = { least: 415, most: 466 } as const
export const GATE = { least: 0.002, most: 0.08 } as const
export const LOWS = [24, 36, 48, 60, 72] as const

const between = (value: unknown, least: number, most: number, usual: number): number =>
  typeof value === 'number' && value >= least && value <= most ? value : usual

/** What is kept, and the usual where it says nothing that can be. */
export const playingInFrom = (value: unknown): PlayingIn => {
  const kept = (typeof value === 'object' && value !== null ? value : {}) as Partial<PlayingIn>
  const simulated = (kept.simulated ?? {}) as Partial<SimulatedManner>
  const delays = Object.entries(kept.delays ?? {}).filter(([, ms]) => typeof ms === 'number' && Math.abs(ms) <= 2000)
  return {
    source: SOURCES.find((s) => s === kept.source) ?? USUAL.source,
    device: typeof kept.device === 'string' ? kept.device : null,
    channel: typeof kept.channel === 'number' ? between(kept.channel, 1, 16, 1) : null,
    surface: SURFACES.find((s) => s === kept.surface) ?? USUAL.surface,
    low: LOWS.find((l) => l === kept.low) ?? USUAL.low,
    compass: typeof kept.compass === 'string' && compass(kept.compass) ? kept.compass : null,
    tuning: between(kept.tuning, TUNING.least, TUNING.most, USUAL.tuning),
    gate: between(kept.gate, GATE.least, GATE.most, USUAL.gate),
    delays: Object.fromEntries(delays),
    simulated: {
      looseness: between(simulated.looseness, 0, 80, USUAL.simulated.looseness),
      wrong: between(simulated.wrong, 0, 0.5, 0),
      fault: PLANTED.find((f) => f === simulated.fault) ?? null,
    },
    pedal: typeof kept.pedal === 'number' ? between(kept.pedal, 0, 127, 64) : null,
  }
}

/** Whether the next pedal that is pressed is learnt. */
export const $learningPedal = atom(false)

/** Whether what is known of the instrument is unfolded; it stays so from take to take. */
export const $unfolded = atom(false)

const NAME = 'playingIn'
export const playingInNow = (): PlayingIn => playingInFrom(standingOf('settings', NAME)?.row.value)
export const setPlayingIn = (change: Partial<PlayingIn>): void => keepSetting(NAME, { ...playingInNow(), ...change })
export const slidePlayingIn = (change: Partial<PlayingIn>): void => slideSetting(NAME, { ...playingInNow(), ...change })

/** Under which name the delay of what one plays from is kept: instruments of their own by their names. */
export const deviceOf = ({ source, device }: PlayingIn): string => (source === 'midi' ? (device ?? source) : source)

/** Players go over the usual compass of their instrument: so many half steps more are listened for. */
const ABOVE = 12

/** What the microphone listens for. */
export const listeningFor = ({ compass: id, tuning, gate }: PlayingIn): Listening => {
  const own = id === null ? null : compass(id)
  const range = own ? { lowest: own.low - own.up, highest: own.high - own.up + ABOVE } : USUAL_LISTENING
  return { lowest: range.lowest, highest: range.highest, tuning, gate }
}
