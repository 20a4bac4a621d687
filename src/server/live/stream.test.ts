import { expect, it, vi } from 'vitest'
import { newsAnswer } from './stream.ts'

let tell = (_: string): void => undefined
const db = {
  listen: async (hears: (told: string) => void) => {
    tell = hears
  },
}
vi.mock('../store.ts', () => ({ store: async () => db }))

it('brings news to who listens, and lets go of who hangs up without a complaint', async () => {
  const asked = new Request('http://here/api/v1/changes', { headers: { accept: 'text/event-stream' } })
  const [one, other] = [await newsAnswer(asked), await newsAnswer(asked)].map((a) => a.body?.getReader())
  const read = async (of = one): Promise<string> => new TextDecoder().decode((await of?.read())?.value)
  expect([await read(), await read(other)]).toEqual(['retry: 1000\n\n', 'retry: 1000\n\n'])
  await expect(other?.cancel()).resolves.toBeUndefined()
  tell('{"news":"missed"}')
  expect(await read()).toBe('data: {"news":"missed"}\n\n')
  await one?.cancel()
})
