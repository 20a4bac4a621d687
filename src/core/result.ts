/** An expected failure is a value: either the answer, or what was wrong with what was asked. */
export type Result<T, E> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: E }

export const ok = <T>(value: T): { readonly ok: true; readonly value: T } => ({ ok: true, value })
export const fail = <E>(error: E): { readonly ok: false; readonly error: E } => ({ ok: false, error })

export type TextErrorCode =
  | 'empty'
  | 'unknown_note'
  | 'unknown_quality'
  | 'contradiction'
  | 'unknown_material'
  | 'unknown_question'
  | 'unclosed'
  | 'unknown_header'
  | 'bad_header'
  | 'bad_bar'
  | 'bad_entry'

/**
 * What is wrong in a text. `at` is a 0-based UTF-16 position within it (its length where the text ends too early);
 * `found` is the piece that was not understood; `expected` says what could stand there.
 */
export interface TextError {
  readonly code: TextErrorCode
  readonly at: number
  readonly found: string
  readonly expected: readonly string[]
  /** Whole questions that were perhaps meant, to be chosen from; never taken by themselves. */
  readonly questions?: readonly string[]
}

/** The same error seen from a longer text in which the piece starts at `offset`. */
export const shiftError = (error: TextError, offset: number): TextError => ({ ...error, at: error.at + offset })
