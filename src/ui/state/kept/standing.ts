import type { Fields, Merge } from './edits.ts'
import type { Answer } from './request.ts'

/** A row as the server keeps it. Version 0 is one that it does not keep yet. */
export interface ServerRow extends Fields {
  readonly id: string
  readonly version: number
}

/**
 * How a row stands. `unreadable`: what was typed does not read, and is held here. `unreachable`: nothing answers, and it
 * is sent again. `conflict`: another kept something else in the meantime. `gone`: it was removed elsewhere.
 */
export type RowState = 'kept' | 'waiting' | 'unreadable' | 'unreachable' | 'conflict' | 'gone'

/** What was typed on an earlier visit and never kept. */
export interface Offer {
  readonly key: string
  readonly patch: Fields
}

/** A row as it is shown, and how true that is. */
export interface Standing<R extends ServerRow> {
  /** What the server keeps, with all that was changed here since. */
  readonly row: R
  readonly state: RowState
  /** What does not read yet, by its field: shown where it was typed, and nowhere else. */
  readonly unread: Fields
  /** What another kept, in a conflict. */
  readonly theirs: R | null
  /** The server's words on why it did not keep it. */
  readonly why: string | null
  /** Whether this browser holds what is not kept, so that a closed tab loses nothing. */
  readonly held: boolean
  readonly offered: Offer | null
}

/** A row as it stands where nothing was changed in it. */
export const asKept = <R extends ServerRow>(row: R): Standing<R> => ({
  ...{ row, state: 'kept', unread: {}, theirs: null },
  ...{ why: null, held: false, offered: null },
})

/** What a kind of row needs known of it. */
export interface RowKind {
  /** The fields that are sent. */
  readonly fields: readonly string[]
  readonly merges: Readonly<Record<string, Merge>>
  /** Whether a conflict is asked about, or what was changed here goes over it. */
  readonly asks: boolean
}

/** Everything a row needs from outside. Times in milliseconds. */
export interface Ports<R extends ServerRow> {
  readonly make: (row: R, body: Fields, step: string) => Promise<Answer<R>>
  readonly change: (row: R, body: Fields, step: string) => Promise<Answer<R>>
  readonly later: (work: () => void, ms: number) => () => void
  readonly now: () => number
  /** A word no other step has. */
  readonly newStep: () => string
  /** Holds what is not kept, or lets go of it with an empty patch; tells whether it does. */
  readonly hold: (row: R, patch: Fields) => boolean
  readonly tell: (standing: Standing<R>) => void
}

export interface HowChanged {
  /** How long to wait for more, in ms. */
  readonly rest?: number
  /** Changes that share this word, and follow each other closely, are undone together. */
  readonly join?: string
}

/** One kept row: see `keptRow`. */
export interface KeptRow<R extends ServerRow> {
  readonly now: () => Standing<R>
  /** Changes some fields; tells whether that begins another step of undo. */
  readonly change: (patch: Fields, how?: HowChanged) => boolean
  /** Holds what was typed into a field and does not read. */
  readonly holdUnread: (unread: Fields) => void
  /** Ends a conflict: what is here goes over theirs, or theirs stands. */
  readonly settle: (whose: 'mine' | 'theirs') => void
  /** Takes a row as the server has it: after undo, or read anew. */
  readonly adopt: (row: R) => void
  /** Sends what waits, at once; resolves when nothing is under way, with whether all is kept. */
  readonly flush: () => Promise<boolean>
  /** Takes back the last step that was not sent yet; tells whether there was one. */
  readonly dropLast: () => boolean
  /** Offers what was left; tells whether anything in it is not here already. */
  readonly offer: (left: Offer) => boolean
  /** Takes up what was offered, or drops it. */
  readonly answerOffer: (take: boolean) => void
}
