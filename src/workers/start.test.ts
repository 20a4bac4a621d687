import { afterEach, beforeEach, expect, it, vi } from 'vitest'

/** Workers that never answer; each can be made to fail, as one whose script does not load does. */
class Silent extends EventTarget {
  static made: Silent[] = []
  ended = false
  constructor(readonly url: URL) {
    super()
    Silent.made.push(this)
  }
  postMessage(): void {}
  terminate(): void {
    this.ended = true
  }
  fail(): void {
    this.dispatchEvent(new Event('error', { cancelable: true }))
  }
}

beforeEach(() => {
  Silent.made = []
  vi.resetModules()
  vi.stubGlobal('Worker', Silent)
})
afterEach(() => vi.unstubAllGlobals())

const ASK = {} as never
const outcome = (work: Promise<unknown>) =>
  work.then(
    () => 'answered',
    () => 'failed',
  )

it('a worker that does not load fails everything that waits for it, and the next question starts another', async () => {
  const { rankInWorker } = await import('./start.ts')
  const waiting = [rankInWorker(ASK), rankInWorker(ASK)].map(outcome)
  expect(Silent.made).toHaveLength(1)
  Silent.made[0]?.fail()
  expect(await Promise.all(waiting)).toEqual(['failed', 'failed'])
  expect(Silent.made[0]?.ended).toBe(true)
  const again = outcome(rankInWorker(ASK))
  expect(Silent.made).toHaveLength(2)
  Silent.made[1]?.fail()
  expect(await again).toBe('failed')
})

it('what is asked about one step has a worker of its own, which leaves the plan alone', async () => {
  const { planInWorker, stopPlanningInWorker } = await import('./start.ts')
  const plan = outcome(planInWorker('routes', ASK, () => undefined))
  const others = outcome(planInWorker('others', ASK, () => undefined))
  expect(Silent.made).toHaveLength(2)
  Silent.made[1]?.fail()
  expect(await others).toBe('failed')
  expect(Silent.made[0]?.ended).toBe(false)
  const stopping = outcome(stopPlanningInWorker())
  Silent.made[0]?.fail()
  expect([await plan, await stopping]).toEqual(['failed', 'failed'])
})

it('a making that is stopped ends its worker, and the next one starts another', async () => {
  const { makeInWorker, stopMakingInWorker } = await import('./start.ts')
  stopMakingInWorker()
  const made = outcome(makeInWorker(ASK))
  stopMakingInWorker()
  expect(await made).toBe('failed')
  expect(Silent.made.map((w) => w.ended)).toEqual([true])
  const again = outcome(makeInWorker(ASK))
  expect(Silent.made).toHaveLength(2)
  Silent.made[1]?.fail()
  expect(await again).toBe('failed')
})

it('a browser without workers fails what is asked, and nothing else', async () => {
  vi.stubGlobal('Worker', undefined)
  const { analyseLineInWorker, readyAuditor } = await import('./start.ts')
  expect(() => readyAuditor()).not.toThrow()
  expect(await outcome(analyseLineInWorker(ASK))).toBe('failed')
})
