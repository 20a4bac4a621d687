import { expect, it, vi } from 'vitest'
import { newsAnswer } from './stream.ts'

let tell = (_: string): void => undefined
const db = {
  listen: async (hears: (told: string) => void) => {
    tell = hears
  },
}
vi.mock('../store.ts', () => ({ store: async () => db }))

const asked = new Request('http://here/api/v1/changes', { headers: { accept: 'text/event-stream' } })

it('brings news to who listens, and lets go of who hangs up without a complaint', async () => {
  const [one, other] = [await newsAnswer(asked), await newsAnswer(asked)].map((a) => a.body?.getReader())
  const read = async (of = one): Promise<string> => new TextDecoder().decode((await of?.read())?.value)
  expect([await read(), await read(other)]).toEqual(['retry: 1000\n\n', 'retry: 1000\n\n'])
  await expect(other?.cancel()).resolves.toBeUndefined()
  tell('{"news":"missed"}')
  expect(await read()).toBe('data: {"news":"missed"}\n\n')
  await one?.cancel()
})

it('lets go of who takes nothing for long, and who takes them hears on', async () => {
  const [idle, awake] = [await newsAnswer(asked), await newsAnswer(asked)].map((a) => a.body?.getReader())
  const MANY = 2000
  let heard = ''
  for (let i = 0; i < MANY; i++) {
    tell(`${i}`)
    heard += new TextDecoder().decode((await awake?.read())?.value)
  }
  expect(heard.match(/^data: \d+$/gm)).toHaveLength(MANY - 1)
  let held = 0
  while (!(await idle?.read())?.done) held++
  expect(held).toBeGreaterThan(1)
  expect(held).toBeLessThan(MANY / 2)
  await awake?.cancel()
})
