import { createEmptyCard, fsrs, generatorParameters, type Grade as Rated, Rating, State } from 'ts-fsrs'
import type { Grade, Memory, MemoryModel } from '../core/index.ts'

/** By the day, and without chance: a card that was played comes again tomorrow at the earliest. */
const SCHEDULER = fsrs(generatorParameters({ enable_fuzz: false, enable_short_term: false }))

const RATINGS: Readonly<Record<Grade, Rated>> = {
  again: Rating.Again,
  hard: Rating.Hard,
  clean: Rating.Good,
  easy: Rating.Easy,
}

const DAY_MS = 86_400_000
const START = new Date(0)

const reviewed = ({ stability, difficulty }: Memory) => ({
  ...createEmptyCard(START),
  ...{ stability, difficulty, state: State.Review, reps: 1, last_review: START },
})

/** The kept memory model behind the schedule. */
export const MEMORY: MemoryModel = {
  after: (before, days, grade) => {
    const { stability, difficulty } = SCHEDULER.next_state(before, days, RATINGS[grade])
    return { stability, difficulty }
  },
  dueIn: (before, days, grade) =>
    SCHEDULER.next(before === null ? createEmptyCard(START) : reviewed(before), new Date(days * DAY_MS), RATINGS[grade])
      .card.scheduled_days,
  held: ({ stability }, days) => SCHEDULER.forgetting_curve(Math.max(0, days), stability),
}
