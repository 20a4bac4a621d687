import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { type Card, cardsOf } from './cards.ts'
import { confusionsIn, daysOf } from './course.ts'
import { coverageOf } from './coverage.ts'
import { familyOf, type ItemKeys, type ItemOf, keysOfItem, type PracticeItem, plainKey } from './items.ts'
import { firstRung, nextRung } from './ladder.ts'
import { GRADES, type Grade, type LogEntry } from './log.ts'
import type { MemoryModel } from './memory.ts'
import { BREAK_AFTER, todayList } from './today.ts'

const DAY = 86_400_000
const NOW = Date.UTC(2026, 10, 20, 9)
const LADDER = { from: 60, to: 76, step: 4 }

/** Twice as long after each clean round, a day after any other. */
const PLAIN: MemoryModel = {
  after: (before, _, grade) => ({
    stability: grade === 'clean' || grade === 'easy' ? (before?.stability ?? 1) * 2 : 1,
    difficulty: 5,
  }),
  dueIn: (before, days, grade) => PLAIN.after(before, days, grade).stability,
  held: ({ stability }, days) => 0.9 ** (days / stability),
}
const item = (id: string, of: ItemOf, keys: ItemKeys = ['C'], rests: PracticeItem['rests'] = null): PracticeItem => ({
  ...{ id, name: id, of, keys, tempo: LADDER, rests },
})
const OVERLAY: ItemOf = { kind: 'overlay', overlay: 'B minor pentatonic', chord: 'Eb7' }
const played = (itemId: string, key: string, daysAgo: number, grade: Grade, tempo = 60): LogEntry => ({
  ...{ at: NOW - daysAgo * DAY, kind: 'round', itemId, key, tempo, grade, minutes: 2 },
})
const cards = (items: readonly PracticeItem[], log: readonly LogEntry[]): readonly Card[] =>
  cardsOf(items, log, PLAIN, NOW, () => 0.5)
const today = (items: readonly PracticeItem[], log: readonly LogEntry[], minutes: number) =>
  todayList({ items, log, cards: cards(items, log), minutes, now: NOW, zone: 0, model: PLAIN })

describe('the ladder of tempo', () => {
  const climb = (grades: string, tempo: number | null = null): number =>
    grades.split(' ').reduce((rung, g) => nextRung(rung, LADDER, g as Grade, tempo), firstRung(LADDER)).tempo
  it.each([
    ['clean', 60],
    ['clean clean', 64],
    ['clean easy', 64],
    ['clean hard clean', 60],
    ['clean again clean', 60],
    ['clean clean clean', 64],
    ['clean clean clean clean', 68],
    ['again again', 60],
    ['clean clean clean clean clean clean again again', 64],
    ['clean clean again clean again', 64],
    ['easy easy easy easy easy easy easy easy easy easy easy easy', 76],
  ])('%s leads to %i', (grades, tempo) => {
    expect(climb(grades)).toBe(tempo)
  })
  it('goes on from the tempo that was really played, also past its end, and never leaves its ends by itself', () => {
    expect(climb('clean clean', 70)).toBe(74)
    expect(climb('clean clean', 90)).toBe(90)
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...GRADES), { maxLength: 40 }), (grades) => {
        const { tempo, best } = grades.reduce((r, g) => nextRung(r, LADDER, g, r.tempo), firstRung(LADDER))
        expect(tempo).toBeGreaterThanOrEqual(60)
        expect(tempo).toBeLessThanOrEqual(76)
        expect((best ?? 60) <= 76).toBe(true)
      }),
    )
  })
})

describe('the keys of an item', () => {
  it.each<[ItemKeys, string]>([
    ['fourths', 'Eb Ab Db F# B E A D G C F Bb'],
    ['half steps', 'Eb E F F# G Ab A Bb B C Db D'],
    [{ order: 'minor thirds', without: ['Gb', 'A#'] }, 'Eb A C E G Db F Ab B D'],
    [['F#', 'Gb', 'C'], 'F# C'],
  ])('%j', (keys, names) => {
    expect(keysOfItem({ of: OVERLAY, keys }, () => 0).join(' ')).toBe(names)
  })
  it('puts those neglected most first, and asks a quiz by its topics', () => {
    const last: Readonly<Record<string, number>> = { Eb: 5, Ab: 3, Db: 9, G: 1 }
    const keys = keysOfItem(
      { of: OVERLAY, keys: 'neglected first' },
      () => 0,
      (k) => last[k] ?? 0,
    )
    expect(keys.slice(-4)).toEqual(['G', 'Ab', 'Eb', 'Db'])
    const quiz = keysOfItem({ of: { kind: 'quiz', topics: ['degree', 'note'] }, keys: 'fourths' }, () => 0)
    expect(quiz).toEqual(['degree', 'note'])
  })
  it.each<[ItemOf, string | null]>([
    [OVERLAY, 'pentatonic'],
    [{ kind: 'overlay', overlay: 'Ab & Bb+' }, 'pair'],
    [{ kind: 'overlay', overlay: 'E half-whole' }, 'symmetric'],
    [{ kind: 'overlay', overlay: 'Gb B C#' }, 'notes'],
    [{ kind: 'route', chartId: 'x' }, 'route'],
    [{ kind: 'quiz', topics: ['degree'] }, null],
  ])('%j counts as %s', (of, family) => {
    expect(familyOf(of)).toBe(family)
  })
})

describe('the list of a day', () => {
  const twelve = item('five', OVERLAY, 'fourths')
  const combine = item('both', { kind: 'combine', sounds: ['E', 'B minor pentatonic'], chord: 'Eb7' })
  const kinds = (list: ReturnType<typeof today>): string => list.blocks.map((b) => b.kind).join(' ')

  it('begins with what there is where nothing was played, and asks nothing of a player without items', () => {
    expect(kinds(today([twelve, combine], [], 25))).toBe('warm-up new combined free')
    expect(kinds(today([], [], 25))).toBe('warm-up free')
  })
  it('takes the cards most likely to be lost first, and tells what had no room', () => {
    const log = ['Eb', 'Ab', 'Db', 'Gb', 'B', 'E', 'A'].map((key, i) => played('five', key, 2 + i * 0.5, 'again'))
    const list = today([twelve], log, 15)
    const due = list.blocks.filter((b) => b.kind === 'due').map((b) => b.card?.key)
    expect(due).toEqual(['A', 'E', 'B'])
    expect(list.left.map((l) => l.key)).toEqual(['F#', 'Db', 'Ab', 'Eb'])
    expect(today([twelve], log, 60).left).toEqual([])
  })
  it('is shorter after a week away, not longer, and says so', () => {
    const long = ['Eb', 'Ab', 'Db', 'Gb', 'B', 'E', 'A'].map((key) => played('five', key, 9, 'again'))
    const back = today([twelve], long, 25)
    const there = today([twelve], [...long, played('five', 'D', 1, 'clean')], 25)
    expect(back.blocks.length).toBeLessThan(there.blocks.length)
    expect(kinds(back)).not.toContain('new')
    expect(back.blocks.find((b) => b.kind === 'due')?.why).toMatch(/^back after 9 days, so the list is short/)
  })
  it('leaves out what is put off or rested until its day', () => {
    const rests = [
      { key: 'Ab', until: new Date(NOW + DAY).toISOString() },
      { key: 'D#', until: null },
      { key: 'Db', until: new Date(NOW - DAY).toISOString() },
    ]
    const log = ['Eb', 'Ab', 'Db'].map((key) => played('five', key, 3, 'again'))
    const list = today([{ ...twelve, rests }], log, 60)
    expect(list.blocks.filter((b) => b.kind === 'due').map((b) => b.card?.key)).toEqual(['Db'])
  })
  it('fits its minutes, breaks at least every twenty, names each card once, whatever was played', () => {
    const entry = fc.record({
      key: fc.constantFrom('C', 'Eb', 'F#', 'A'),
      days: fc.nat(40),
      grade: fc.constantFrom(...GRADES),
    })
    fc.assert(
      fc.property(fc.array(entry, { maxLength: 60 }), fc.integer({ min: 1, max: 120 }), (entries, minutes) => {
        const log = entries.map((e) => played(e.days % 2 ? 'five' : 'both', e.key, e.days, e.grade))
        const { blocks, left } = today([twelve, combine], log, minutes)
        expect(blocks.reduce((sum, b) => sum + b.minutes, 0)).toBeLessThanOrEqual(Math.max(minutes + 2, 5))
        const named = [...blocks.filter((b) => b.kind !== 'warm-up' && b.card), ...left].map((b) =>
          'card' in b ? `${b.itemId} ${b.card?.key}` : `${b.itemId} ${b.key}`,
        )
        expect(new Set(named).size).toBe(named.length)
        let since = 0
        for (const b of blocks) {
          since = b.kind === 'break' ? 0 : since + b.minutes
          expect(since).toBeLessThanOrEqual(BREAK_AFTER)
        }
        expect(blocks.at(-1)?.kind).not.toBe('break')
      }),
    )
  })
})

describe('the figures of the log', () => {
  const items = [item('five', OVERLAY, 'fourths'), item('quiz', { kind: 'quiz', topics: ['degree'] })]
  const log = [
    played('five', 'Eb', 3, 'clean', 72),
    played('five', 'D#', 2, 'again', 80),
    played('five', 'F', 9, 'easy', 64),
    played('gone', 'F', 1, 'easy', 64),
    { ...played('five', 'F', 1, 'easy', 200), grade: null },
  ]
  it('tells of each family and key when last, how fast cleanly, how clean; holes too', () => {
    const cells = coverageOf(items, log)
    const at = (key: string) => cells.find((c) => c.family === 'pentatonic' && c.key === key)
    expect(at('Eb')).toMatchObject({ last: NOW - 2 * DAY, tempo: 72, clean: 0.5, rounds: 2 })
    expect(at('F')).toMatchObject({ last: NOW - 9 * DAY, tempo: 64, clean: 1, rounds: 1 })
    expect(at('C')).toMatchObject({ last: null, tempo: null, clean: null, rounds: 0 })
    expect(cells.length % 12).toBe(0)
  })
  it('counts days by the clock of the player', () => {
    const late: LogEntry = { ...played('five', 'C', 0, 'clean'), at: Date.UTC(2026, 10, 19, 23, 30), minutes: 12 }
    const minutes = (zone: number) => daysOf([late], NOW - 2 * DAY, NOW, zone).map((d) => d.minutes)
    expect(minutes(0)).toEqual([0, 12, 0])
    expect(minutes(60)).toEqual([0, 0, 12])
    expect(daysOf([late], NOW - DAY, NOW, 0)[0]).toEqual({ day: '2026-11-19', minutes: 12, rounds: 1, clean: 1 })
  })
  it('tells what is taken for what, of how often it was asked', () => {
    const asked = (right: string, given: string): LogEntry => ({
      ...played('quiz', 'degree', 1, given === right ? 'clean' : 'again'),
      kind: 'quiz',
      answered: { topic: 'degree', right, given },
    })
    const quiz = [asked('#9', 'b9'), asked('#9', 'b9'), asked('#9', '#9'), asked('b9', '#9'), asked('#9', '9')]
    expect(confusionsIn(quiz)).toEqual([{ topic: 'degree', right: '#9', given: 'b9', times: 2, asked: 4 }])
  })
  it('reads any spelling of a key as one', () => {
    expect(['D#', 'Eb', 'degree'].map(plainKey)).toEqual(['Eb', 'Eb', 'degree'])
  })
})
