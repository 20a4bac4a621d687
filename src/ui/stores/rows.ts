import type { KeptOverride, KeptStep } from '../../core/index.ts'

/** Kept rows as the interface sends them. */
interface Kept {
  readonly id: string
  readonly version: number
  readonly createdAt: string
  readonly updatedAt: string
}
export interface ChartRow extends Kept {
  readonly title: string
  readonly text: string
  readonly tags: readonly string[]
  readonly overrides: readonly KeptOverride[] | null
}
export interface IdeaRow extends Kept {
  readonly overlay: string
  readonly chord: string
  readonly next: string | null
  readonly note: string | null
  readonly tags: readonly string[]
  readonly chartId: string | null
  readonly bar: number | null
  readonly beat: number | null
}
export interface RouteRow extends Kept {
  readonly name: string
  readonly note: string | null
  readonly chartId: string | null
  readonly chartVersion: number | null
  /** In concert pitch, with the chords they were planned over. */
  readonly steps: readonly KeptStep[]
  /** What was asked for, as `PlanWords`; null where a script kept it without. */
  readonly rules: unknown
}
/** A note as it is kept: ticks from the start, and a MIDI number or a name. */
export interface KeptNote {
  readonly at: number
  readonly for: number
  readonly pitch: number | string
}
export interface LineRow extends Kept {
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
export interface SettingRow extends Kept {
  readonly name: string
  readonly value: unknown
}

/** What the server answered, or why it did not: `code` is the problem's, `unreachable` where nothing answered. */
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly code: string; readonly detail: string; readonly current?: unknown }

/** What a request was answered, or that nothing answered. */
export const answered = async <T>(send: () => Promise<Response>): Promise<Answer<T>> => {
  try {
    const response = await send()
    const read = await response.json()
    return response.ok
      ? { ok: true, value: read }
      : { ok: false, code: read.code, detail: read.detail, current: read.current }
  } catch {
    return { ok: false, code: 'unreachable', detail: 'The program is not answering.' }
  }
}

/** One request to this program's own interface. */
export const request = <T>(method: string, path: string, body?: unknown): Promise<Answer<T>> =>
  answered<T>(() =>
    fetch(`/api/v1/${path}`, {
      method,
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    }),
  )
