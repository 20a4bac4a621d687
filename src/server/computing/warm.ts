import { check } from '../check.ts'
import { BODIES } from '../compute-schemas.ts'
import { auditAnswer } from '../lines.ts'
import { planAnswer } from '../routes.ts'
import type { LaneName } from './lanes.ts'

const TEXT = '| Dm7 G7 | Cmaj7 A7alt | Bbm7 Eb7 | F#m7b5 B7 |'
const STEPS = [2, 1, -2, 3, -1, 2, -4, 1, 2, -3, 5, -2, -1] as const

const notes = Array.from({ length: 256 }, (_, i) => ({
  at: i * 240,
  for: 240,
  pitch: 60 + (i % 12) + (STEPS[i % 13] ?? 0),
}))

const up = (by: number) => notes.map((n) => ({ ...n, pitch: n.pitch + by }))
/** After so many the compiler has done most of its work. */
const ROUNDS = 4

/** What a thread does before its first task, so that nobody waits for its tables and its compiler. */
export const warmUp: Readonly<Record<LaneName, () => Promise<unknown> | unknown>> = {
  usual: async () => {
    for (let round = 0; round < ROUNDS; round++)
      await auditAnswer(check(BODIES.audit, { text: TEXT, line: { notes: up(round) } }))
  },
  plans: () => planAnswer(check(BODIES.plan, { text: TEXT, limit: 5 })),
}
