import { createEmptyCard, fsrs, generatorParameters, type Grade as Rated, Rating } from 'ts-fsrs'
import { describe, expect, it } from 'vitest'
import { cardsOf, GRADES, type LogEntry, type PracticeItem } from '../core/index.ts'
import { MEMORY } from './memory.ts'

const DAY = 86_400_000
const RATINGS: Readonly<Record<string, Rated>> = {
  again: Rating.Again,
  hard: Rating.Hard,
  clean: Rating.Good,
  easy: Rating.Easy,
}
const drawn = (seed: number): (() => number) => {
  let state = seed
  return () => {
    state = (state * 48_271) % 2_147_483_647
    return state / 2_147_483_647
  }
}
const item = (id: string): PracticeItem => ({
  ...{ id, name: id, of: { kind: 'overlay' }, keys: ['C'], tempo: { from: 60, to: 120, step: 4 } },
})
const word: LogEntry = {
  ...{ at: 0, kind: 'word', itemId: null, key: null, tempo: null, grade: null, minutes: null },
}

describe('the schedule', () => {
  it('is the memory model called directly, on ten thousand random histories in one log out of order', () => {
    const rng = drawn(20_261_128)
    const direct = fsrs(generatorParameters({ enable_fuzz: false, enable_short_term: false }))
    const log: LogEntry[] = [word]
    const wanted = Array.from({ length: 10_000 }, (_, i) => {
      let at = Date.UTC(2026, 0, 1) + Math.floor(rng() * 40 * DAY)
      let card = createEmptyCard(new Date(at))
      for (let n = 1 + Math.floor(rng() * 12); n > 0; n--) {
        const grade = GRADES[Math.floor(rng() * 4)] ?? 'clean'
        card = direct.next(card, new Date(at), RATINGS[grade] ?? Rating.Good).card
        log.push({ ...word, at, kind: 'round', itemId: `i${i}`, key: 'C', grade, tempo: 60 })
        at += rng() < 0.3 ? Math.floor(rng() * 3_600_000) : Math.floor(rng() * 30 * DAY)
      }
      return card
    })
    const shuffled = [...log].sort((a, b) => ((a.at * 7919) % 10_007) - ((b.at * 7919) % 10_007))
    const cards = cardsOf(
      wanted.map((_, i) => item(`i${i}`)),
      shuffled,
      MEMORY,
      0,
      () => 0,
    )
    const wrong = cards.filter((card, i) => {
      const due = wanted[i]?.due.getTime()
      const near = (a: number, b: number | undefined): boolean => Math.abs(a - (b ?? 0)) < 1e-6
      return !(
        card.due === due &&
        near(card.memory?.stability ?? 0, wanted[i]?.stability) &&
        near(card.memory?.difficulty ?? 0, wanted[i]?.difficulty)
      )
    })
    expect(cards.length).toBe(10_000)
    expect(wrong.length).toBe(0)
  })
})
