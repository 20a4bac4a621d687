import type {
  Answered,
  Grade,
  ItemKeys,
  ItemOf,
  KeptOverride,
  KeptPlan,
  KeptStep,
  LogKind,
  PlayedNote,
  Rest,
  TempoLadder,
} from '../../../core/index.ts'

/** Kept rows as the interface sends them. */
type Kept = {
  readonly id: string
  readonly version: number
  readonly createdAt: string
  readonly updatedAt: string
}
export type ChartRow = Kept & {
  readonly title: string
  readonly text: string
  readonly tags: readonly string[]
  readonly overrides: readonly KeptOverride[] | null
}
export type IdeaRow = Kept & {
  readonly overlay: string
  readonly chord: string
  readonly next: string | null
  readonly note: string | null
  readonly tags: readonly string[]
  readonly chartId: string | null
  readonly bar: number | null
  readonly beat: number | null
}
export type RouteRow = Kept & {
  readonly name: string
  readonly note: string | null
  readonly chartId: string | null
  readonly chartVersion: number | null
  /** In concert pitch, with the chords they were planned over. */
  readonly steps: readonly KeptStep[]
  /** What was asked for, as `PlanWords`; null where a script kept it without. */
  readonly rules: unknown
  /** Whether it is what lies over its chart now. */
  readonly inHand: boolean
}
/** A note as it is kept: ticks from the start, and a MIDI number or a name. */
export type KeptNote = {
  readonly at: number
  readonly for: number
  readonly pitch: number | string
  /** Its spelling where a source gave one: `Cb`. */
  readonly name?: string
}
export type LineRow = Kept & {
  readonly name: string
  readonly chartId: string | null
  readonly text: string | null
  readonly line: { readonly notes: readonly KeptNote[] } | { readonly abc: string } | { readonly musicxml: string }
  readonly tags: readonly string[]
  /** Sentences of the verdict the player disputes, as they are said. */
  readonly disputed: readonly string[] | null
  /** Its notes as they were played, where they were brought to a grid. */
  readonly played: readonly KeptNote[] | null
  /** The route it was planned by. */
  readonly routeId: string | null
}
/** A chorus as it was played; its notes in ticks from the first bar of what was looped, on no grid. */
export type TakeRow = Kept & {
  readonly name: string
  readonly chartId: string | null
  readonly itemId: string | null
  /** The key of its item. */
  readonly key: string | null
  readonly text: string
  readonly overrides: readonly KeptOverride[] | null
  readonly bars: readonly [number, number] | null
  readonly plan: KeptPlan | null
  readonly tempo: number
  /** Ms by which the instrument arrives late. */
  readonly offset: number
  readonly source: string
  readonly notes: readonly PlayedNote[]
  /** When its sound begins, ms from the first beat. */
  readonly soundFrom: number
  readonly sound: { readonly type: string; readonly bytes: number } | null
  readonly disputed: readonly string[] | null
  /** Whether it is being played. */
  readonly open: boolean
  readonly tags: readonly string[]
}
export type ItemRow = Kept & {
  readonly name: string
  readonly of: ItemOf
  readonly keys: ItemKeys
  readonly tempo: TempoLadder
  readonly pattern: unknown
  readonly note: string | null
  readonly tags: readonly string[]
  readonly rests: readonly Rest[] | null
}
export type LogRow = Kept & {
  readonly at: string
  readonly kind: LogKind
  readonly itemId: string | null
  readonly key: string | null
  readonly tempo: number | null
  readonly grade: Grade | null
  readonly minutes: number | null
  readonly text: string | null
  readonly answered: Answered | null
}
export type SettingRow = Kept & {
  readonly name: string
  readonly value: unknown
}

export interface RowOf {
  readonly charts: ChartRow
  readonly routes: RouteRow
  readonly lines: LineRow
  readonly ideas: IdeaRow
  readonly takes: TakeRow
  readonly items: ItemRow
  readonly log: LogRow
  readonly settings: SettingRow
}
export type KindName = keyof RowOf
