import type { KeptOverride } from '../../core/index.ts'
import type { FieldError, ProblemCode } from '../problems.ts'

/** What an export is made of: the kept row, and the text of the chart it lies over. */
export interface KeptText {
  readonly row: Readonly<Record<string, unknown>>
  readonly chart: {
    readonly text: string
    readonly title?: string
    readonly overrides?: readonly KeptOverride[] | null
  } | null
}

/** What a thread is asked, in values that can be sent: nothing in it was checked yet but its size. */
export interface Asked {
  readonly query: readonly (readonly [string, string])[]
  readonly body?: Uint8Array
  /** The content type of a form. */
  readonly type?: string
  readonly kept?: KeptText
  readonly kind?: string
  readonly versioned?: boolean
}

/** What a thread answers. */
export type Answer =
  | { readonly kind: 'json'; readonly text: string }
  | {
      readonly kind: 'file'
      readonly body: string | Uint8Array
      readonly title: string
      readonly format: { readonly extension: string; readonly type: string }
    }
  | { readonly kind: 'fields'; readonly fields: Readonly<Record<string, unknown>> }

/** A problem as it is sent between threads. */
export interface SentProblem {
  readonly code: ProblemCode
  readonly detail: string
  readonly errors: readonly FieldError[]
}

export type Outcome =
  | { readonly ok: true; readonly answer: Answer }
  | { readonly ok: false; readonly problem: SentProblem }
