import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { turnsOf } from './turns.ts'

describe('work that waits', () => {
  it('is taken from each asker by turns, of one asker in its order', () => {
    const turns = turnsOf<string>(9, 99)
    for (const work of ['a1', 'a2', 'a3', 'b1', 'c1', 'c2']) turns.add(work.charAt(0), work)
    const order = Array.from({ length: 7 }, () => turns.next())
    expect(order).toEqual(['a1', 'b1', 'c1', 'a2', 'c2', 'a3', undefined])
  })
  it('has room for so much of one and so much in all, and room again for what was taken or dropped', () => {
    const turns = turnsOf<number>(2, 3)
    expect([1, 2, 3].map((n) => turns.add('a', n))).toEqual([true, true, false])
    expect([4, 5].map((n) => turns.add('b', n))).toEqual([true, false])
    expect([turns.drop('a', 1), turns.drop('a', 1)]).toEqual([true, false])
    expect(turns.add('b', 5)).toBe(true)
    expect(turns.next()).toBe(2)
    expect(turns.add('c', 6)).toBe(true)
  })
  it('is never lost, never done twice, and nobody waits longer than everyone else has one turn', () => {
    const asks = fc.array(fc.tuple(fc.constantFrom('a', 'b', 'c', 'd'), fc.boolean()), { maxLength: 60 })
    fc.assert(
      fc.property(asks, (all) => {
        const turns = turnsOf<string>(100, 100)
        const [added, done]: string[][] = [[], []]
        for (const [i, [asker, takes]] of all.entries()) {
          turns.add(asker, `${asker}${i}`)
          added?.push(`${asker}${i}`)
          if (takes) done?.push(turns.next() ?? '')
        }
        const waiting = new Set(added?.filter((w) => !done?.includes(w)).map((w) => w.charAt(0)))
        const first = Array.from({ length: waiting.size }, () => turns.next() ?? '')
        expect(new Set(first.map((w) => w.charAt(0)))).toEqual(waiting)
        for (let w = turns.next(); w !== undefined; w = turns.next()) first.push(w)
        expect([...(done ?? []), ...first].sort()).toEqual([...(added ?? [])].sort())
      }),
    )
  })
})
