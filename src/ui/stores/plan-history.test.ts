// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest'
import { $place, readPlace } from './place.ts'
import { changePlan, keptMeanwhile, redoPlan, undoPlan } from './plan-history.ts'

const at = (address: string) => {
  const url = new URL(address, 'http://localhost')
  const place = readPlace(url.pathname, url.searchParams)
  if (!place) throw new Error(address)
  return place
}
const plan = () => $place.get()?.plan

describe('what was asked of a route', () => {
  let chart = 0
  beforeEach(() => $place.set(at(`/route?chart=c${++chart}`)))

  it('is taken back one by one and done again, with the route that was in view', () => {
    changePlan({ plan: 'a', pick: 0 })
    changePlan({ pick: 3 })
    changePlan({ plan: 'b', pick: 0 })
    expect(undoPlan()).toBe(true)
    expect([plan(), $place.get()?.pick]).toEqual(['a', 3])
    undoPlan()
    undoPlan()
    expect(plan()).toBeNull()
    expect(undoPlan()).toBe(false)
    redoPlan()
    expect(plan()).toBe('a')
  })
  it('gives way to what was kept meanwhile, once', () => {
    changePlan({ plan: 'a' })
    keptMeanwhile()
    expect(undoPlan()).toBe(false)
    expect(plan()).toBe('a')
    expect(undoPlan()).toBe(true)
    expect(plan()).toBeNull()
  })
  it('is forgotten with another chart, and what is asked anew cannot be done again', () => {
    changePlan({ plan: 'a' })
    undoPlan()
    changePlan({ plan: 'b' })
    expect(redoPlan()).toBe(false)
    $place.set(at('/route?chart=other'))
    expect(undoPlan()).toBe(false)
  })
})
