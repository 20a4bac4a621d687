import {
  DEFAULT_SCHOOL,
  DEFAULT_WEIGHTS,
  DIRECTIONS,
  type Direction,
  INSTRUMENTS,
  type InstrumentId,
  PENTATONIC_NAMINGS,
  type PentatonicNaming,
  SCHOOL_CHOICES,
  type School,
  type SchoolSetting,
  SWING_RANGE,
  TUNINGS,
  type Weights,
} from '../../../core/index.ts'
import { CHANNELS, type Channel, type Mix } from '../../../sound/score.ts'
import type { SettingRow } from './row-types.ts'

export const LOOKS = ['system', 'light', 'club'] as const
export const CLEFS = ['treble', 'bass', 'alto'] as const
export type Clef = (typeof CLEFS)[number]
export const HEARD_AS = ['up', 'down', 'chord', 'triads'] as const
export type HeardAs = (typeof HEARD_AS)[number]
export const HEAR_TEMPO = { least: 30, most: 300, usual: 90 } as const

/** What the player has set, with defaults; `instrument` is null until the player has answered. */
export interface Settings {
  readonly instrument: InstrumentId | null
  readonly look: (typeof LOOKS)[number]
  readonly keys: 'on' | 'off'
  readonly clef: Clef
  /** Open strings from the lowest, as text. */
  readonly tuning: string
  readonly leftHanded: boolean
  readonly naming: PentatonicNaming
  readonly direction: Direction
  readonly school: School
  readonly weights: Weights
  readonly hearAs: HeardAs
  readonly hearTempo: number
  /** How loud the line and each of the band is. */
  readonly mix: Mix
  /** Where the second of two eighths falls, per cent; null for the feel's own. */
  readonly swing: number | null
  /** A bar of clicks before the music. */
  readonly countIn: boolean
  /** Whether the chord in view goes along with the music. */
  readonly follow: boolean
}

/** At first all is low, and the click is off. */
const FIRST_MIX: Mix = {
  levels: { line: 0.6, bass: 0.55, chords: 0.5, drums: 0.4, click: 0.4 },
  muted: ['click'],
  solo: [],
}

type Values = Readonly<Record<string, unknown>>

const among = <T extends string>(all: readonly T[], value: unknown, usual: T): T =>
  all.find((one) => one === value) ?? usual

const isRecord = (value: unknown): value is Values => typeof value === 'object' && value !== null

const schoolFrom = (value: unknown): School => {
  const asked = isRecord(value) ? value : {}
  const chosen = (Object.keys(SCHOOL_CHOICES) as SchoolSetting[]).map((s) => {
    const all: readonly string[] = SCHOOL_CHOICES[s].choices
    return [s, among(all, asked[s], DEFAULT_SCHOOL[s])]
  })
  return Object.fromEntries(chosen) as School
}

const figure = (value: unknown, usual: number, least = 0, most = 100): number =>
  typeof value === 'number' && value >= least && value <= most ? value : usual

const weightsFrom = (value: unknown): Weights => {
  const asked = isRecord(value) ? value : {}
  const altered = isRecord(asked.altered) ? asked.altered : {}
  const { altered: usual, ...plain } = DEFAULT_WEIGHTS
  const read = (values: Values, defaults: Readonly<Record<string, number>>) =>
    Object.fromEntries(Object.entries(defaults).map(([name, d]) => [name, figure(values[name], d)]))
  return { ...read(asked, plain), altered: read(altered, usual) } as unknown as Weights
}

const channelsFrom = (value: unknown, usual: readonly Channel[]): readonly Channel[] =>
  Array.isArray(value) ? CHANNELS.filter((c) => value.includes(c)) : usual

const mixFrom = (value: unknown): Mix => {
  const asked = isRecord(value) ? value : {}
  const levels = isRecord(asked.levels) ? asked.levels : {}
  return {
    levels: Object.fromEntries(CHANNELS.map((c) => [c, figure(levels[c], FIRST_MIX.levels[c], 0, 1)])) as Mix['levels'],
    muted: channelsFrom(asked.muted, FIRST_MIX.muted),
    solo: channelsFrom(asked.solo, FIRST_MIX.solo),
  }
}

/** What the kept rows say; a value that this program does not know counts as not set. */
export const settingsFrom = (rows: readonly SettingRow[]): Settings => {
  const kept: Values = Object.fromEntries(rows.map((r) => [r.name, r.value]))
  return {
    instrument: INSTRUMENTS.find((i) => i.id === kept.instrument)?.id ?? null,
    look: among(LOOKS, kept.look, 'system'),
    keys: among(['on', 'off'], kept.keys, 'on'),
    clef: among(CLEFS, kept.clef, 'treble'),
    tuning: typeof kept.tuning === 'string' ? kept.tuning : TUNINGS[0].strings,
    leftHanded: kept.leftHanded === true,
    naming: among(PENTATONIC_NAMINGS, kept.naming, 'as minor'),
    direction: among(DIRECTIONS, kept.direction, 'as usual'),
    school: schoolFrom(kept.school),
    weights: weightsFrom(kept.weights),
    hearAs: among(HEARD_AS, kept.hearAs, 'up'),
    hearTempo: figure(kept.hearTempo, HEAR_TEMPO.usual, HEAR_TEMPO.least, HEAR_TEMPO.most),
    mix: mixFrom(kept.mix),
    swing: typeof kept.swing === 'number' ? figure(kept.swing, 50, SWING_RANGE.least, SWING_RANGE.most) : null,
    countIn: kept.countIn === true,
    follow: kept.follow !== false,
  }
}
