import type { TempoLadder } from './items.ts'
import { type Grade, isClean } from './log.ts'

/** Where a card stands on its ladder: the tempo to play now, and how many rounds in a row were clean or bad there. */
export interface Rung {
  readonly tempo: number
  readonly clean: number
  readonly bad: number
  /** The fastest that was played cleanly. */
  readonly best: number | null
}

export const firstRung = ({ from }: TempoLadder): Rung => ({ tempo: from, clean: 0, bad: 0, best: null })

/** So many rounds in a row move the tempo; down goes by so many steps. */
const ROUNDS = 2
const STEPS_DOWN = 2

const up = (tempo: number, { to, step }: TempoLadder): number => (tempo < to ? Math.min(to, tempo + step) : tempo)
const down = (tempo: number, { from, step }: TempoLadder): number =>
  tempo > from ? Math.max(from, tempo - STEPS_DOWN * step) : tempo

/** After a graded round: a step up after two clean ones, two down after two bad ones, never past the ends of the ladder. */
export const nextRung = (rung: Rung, ladder: TempoLadder, grade: Grade, played: number | null): Rung => {
  const tempo = played ?? rung.tempo
  const before = tempo === rung.tempo ? rung : { clean: 0, bad: 0 }
  const clean = isClean(grade) ? before.clean + 1 : 0
  const bad = grade === 'again' ? before.bad + 1 : 0
  const best = isClean(grade) && played !== null ? Math.max(rung.best ?? 0, played) : rung.best
  if (clean >= ROUNDS) return { tempo: up(tempo, ladder), clean: 0, bad: 0, best }
  if (bad >= ROUNDS) return { tempo: down(tempo, ladder), clean: 0, bad: 0, best }
  return { tempo, clean, bad, best }
}
