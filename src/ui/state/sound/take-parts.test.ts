// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { listeningFor, playingInFrom } from '../takes/manner.ts'
import { heldTake, partSender } from './take-parts.ts'

const note = (at: number) => ({ at, for: 100, pitch: 60 })

/** A server that keeps what comes, and can be dead, or answer once without being heard. */
const server = () => {
  const parts = new Map<number, readonly object[]>()
  let bytes = 0
  const state = { isDead: false, isDeaf: false, most: Number.POSITIVE_INFINITY }
  const answer = (status: number, body: object) =>
    state.isDeaf ? Promise.reject(new Error('cut')) : Promise.resolve(new Response(JSON.stringify(body), { status }))
  const fetch = async (path: string, { body }: { body: string | Blob }): Promise<Response> => {
    if (state.isDead) throw new Error('dead')
    if (path.endsWith('/parts')) {
      const { n, notes } = JSON.parse(body as string)
      parts.set(n, notes)
      return answer(200, { n })
    }
    const from = Number(new URLSearchParams(path.split('?')[1]).get('from'))
    if (from !== bytes) return answer(409, { code: 'not_the_end', detail: '', current: { bytes } })
    if (bytes + (body as Blob).size > state.most) return answer(413, { code: 'too_large', detail: '' })
    bytes += (body as Blob).size
    return answer(200, { bytes })
  }
  return { parts, state, fetch, bytes: () => bytes }
}

let there: ReturnType<typeof server>
beforeEach(() => {
  there = server()
  vi.stubGlobal('fetch', there.fetch)
  localStorage.clear()
})
afterEach(() => vi.unstubAllGlobals())

describe('a take that is sent as it grows', () => {
  it('goes in numbered parts, each once and in order', async () => {
    const sender = partSender('t', () => undefined)
    sender.addNotes([note(0), note(1)])
    sender.addNotes([])
    sender.addNotes([note(2)])
    await sender.finished()
    expect([...there.parts]).toEqual([
      [0, [note(0), note(1)]],
      [1, [note(2)]],
    ])
    expect(heldTake()).toBeNull()
  })

  it('tells of a player who rests now and then, so that the take is not thought cut off', async () => {
    const sender = partSender('t', () => undefined)
    for (let i = 0; i < 7; i++) sender.addNotes([])
    await sender.finished()
    expect([...there.parts.values()]).toEqual([[], []])
  })

  it('is held here while the server is dead, and sent when it answers again', async () => {
    const told: boolean[] = []
    const sender = partSender('t', (isKept) => told.push(isKept))
    there.state.isDead = true
    sender.addNotes([note(0)])
    sender.addSound(new Blob(['abc']))
    await sender.finished()
    expect(told.at(-1)).toBe(false)
    expect(heldTake()).toEqual({ id: 't', notes: [note(0)] })
    there.state.isDead = false
    sender.addNotes([note(1)])
    await sender.finished()
    expect([...there.parts.values()].flat()).toEqual([note(0), note(1)])
    expect(there.bytes()).toBe(3)
    expect([told.at(-1), heldTake()]).toEqual([true, null])
  })

  it('does not send twice what came though its answer was lost', async () => {
    const sender = partSender('t', () => undefined)
    there.state.isDeaf = true
    sender.addSound(new Blob(['abcd']))
    await sender.finished()
    there.state.isDeaf = false
    sender.addSound(new Blob(['ef']))
    await sender.finished()
    expect(there.bytes()).toBe(6)
  })

  it('lets the sound end where it is as long as it may be; the notes go on', async () => {
    there.state.most = 4
    const sender = partSender('t', () => undefined)
    for (const piece of ['abc', 'def', 'ghi']) sender.addSound(new Blob([piece]))
    sender.addNotes([note(0)])
    await sender.finished()
    expect([there.bytes(), there.parts.size]).toEqual([3, 1])
  })
})

describe('how one plays in', () => {
  it('listens for every note an instrument has, and for those above its usual compass', () => {
    // Guitars go up to the 22nd fret at least, tenors above their keys.
    for (const [id, low, high] of [
      ['guitar', 40, 86],
      ['tenor', 44, 84],
      ['bass', 28, 62],
    ] as const) {
      const { lowest, highest } = listeningFor({ ...playingInFrom(undefined), compass: id })
      expect(lowest, id).toBe(low)
      expect(highest, id).toBeGreaterThanOrEqual(high)
    }
  })

  it('takes what can be of what is kept, and the usual for the rest', () => {
    const usual = playingInFrom(undefined)
    expect(playingInFrom('nonsense')).toEqual(usual)
    expect(
      playingInFrom({
        ...{ source: 'midi', device: 'Dummy keys', channel: 99, low: 47, compass: 'kazoo', tuning: 442, gate: 9 },
        ...{ delays: { midi: 31, bad: 'x' }, simulated: { fault: 'overstay', looseness: -3 }, pedal: 64 },
      }),
    ).toEqual({
      ...usual,
      ...{ source: 'midi', device: 'Dummy keys', channel: 1, tuning: 442, delays: { midi: 31 }, pedal: 64 },
      simulated: { ...usual.simulated, fault: 'overstay' },
    })
  })
})
