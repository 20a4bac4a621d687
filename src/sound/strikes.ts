import { type Score, type ScorePart, secondsOf, secondsPerTick } from './score.ts'

/** One note as it is struck: seconds of a clock. */
export interface Strike {
  readonly part: ScorePart
  readonly pitch: number
  readonly at: number
  readonly seconds: number
  readonly loudness: number
}

const APART = 0.001
/** A strike that comes late is struck so soon, s. */
const SOON = 0.005

/**
 * Puts the strikes of each voice after one another: a voice of one note at a time cannot begin twice in one moment, as it
 * would where playing begins anew while the last notes are still to come, or where the page was held up and several are
 * late by now. Chords have a voice for each note.
 */
export const oneAfterAnother = (now = () => -Infinity): ((part: ScorePart, at: number) => number) => {
  const last = new Map<ScorePart, number>()
  return (part, asked) => {
    const at = asked < now() ? now() + SOON : asked
    if (part === 'chords') return at
    const from = Math.max(at, (last.get(part) ?? -Infinity) + APART)
    last.set(part, from)
    return from
  }
}

/** A score once, from a moment on. */
export const strikesOf = (score: Score, begins: number): readonly Strike[] => {
  const tick = secondsPerTick(score)
  return score.notes.map(({ part, pitch, at, for: length, loudness }) => ({
    ...{ part, pitch, loudness },
    at: begins + (at - score.span.from) * tick,
    seconds: length * tick,
  }))
}

/** A round that was laid on the clock: its number, and when it begins. */
export interface LaidRound {
  readonly number: number
  readonly begins: number
  readonly score: Score
}

/** Rounds one after another on a clock, each asked for shortly before its first beat, so that it may still be changed. */
export interface Sequence {
  readonly rounds: readonly LaidRound[]
  readonly waiting: readonly Strike[]
  /** When what is laid ends. */
  readonly ends: number
}

/** Nothing laid yet, from a moment on. */
export const emptySequence = (begins: number): Sequence => ({ rounds: [], waiting: [], ends: begins })

/** As many laid rounds are remembered: the one that sounds, those about it, and no more however long one plays. */
const REMEMBERED = 3

/**
 * Lays what begins before `lay`, and gives what is to be struck from `now` until `strike`; what is late by then is left
 * out. Null of `next`: there are no more rounds.
 */
export const advance = (
  sequence: Sequence,
  until: { readonly now: number; readonly strike: number; readonly lay: number },
  next: (number: number) => Score | null,
): { readonly sequence: Sequence; readonly strikes: readonly Strike[] } => {
  let { rounds, waiting, ends } = sequence
  while (ends < until.lay) {
    const number = (rounds.at(-1)?.number ?? -1) + 1
    const score = next(number)
    if (score === null || secondsOf(score) <= 0) break
    rounds = [...rounds, { number, begins: ends, score }].slice(-REMEMBERED)
    waiting = [...waiting, ...strikesOf(score, ends)]
    ends += secondsOf(score)
  }
  return {
    sequence: { rounds, waiting: waiting.filter((s) => s.at >= until.strike), ends },
    strikes: waiting.filter((s) => s.at >= until.now && s.at < until.strike),
  }
}

/** The round that sounds at a moment, and the tick of its chart; null before the first and after the last. */
export const roundAtTime = (
  { rounds, ends }: Sequence,
  now: number,
): { readonly number: number; readonly tick: number } | null => {
  const round = rounds.findLast((r) => r.begins <= now)
  if (!round || now >= ends) return null
  return { number: round.number, tick: round.score.span.from + (now - round.begins) / secondsPerTick(round.score) }
}
