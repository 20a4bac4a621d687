import { setMaxListeners } from 'node:events'
import { afterAll, describe, expect, it } from 'vitest'
import { Problem } from '../problems.ts'
import type { Asked } from './asked.ts'
import { compute, stopComputing } from './computing.ts'
import { MOST_WAITING } from './lanes.ts'
import type { TaskName } from './tasks.ts'

const body = (value: unknown): Asked => ({ query: [], body: new TextEncoder().encode(JSON.stringify(value)) })
const here = new AbortController().signal
const ask = (task: TaskName, asked: Asked, asker = 'a', gone: AbortSignal = here) => compute(task, asked, asker, gone)
const code = (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'done',
    (error: unknown) => (error instanceof Problem ? error.code : String(error)),
  )

const CHORDS = ['Dm7', 'G7alt', 'Cmaj7', 'F#m7b5', 'B7', 'Ebmaj7']
const bars = (n: number): string =>
  Array.from({ length: n }, (_, i) => `| ${CHORDS[i % 6]} ${CHORDS[(i * 5 + 1) % 6]} `).join('')
/** Longer than a plan may take. */
const ENDLESS = body({ text: bars(200), motion: '+1', motionScope: 'throughout', loop: true })
const SMALL: Asked = { query: [['chord', 'Eb7']] }

afterAll(stopComputing)

describe('what is worked out aside', () => {
  it('answers, and tells what is wrong with its place as the main thread would', async () => {
    const answer = await ask('overlays', SMALL)
    expect(answer.kind === 'json' && JSON.parse(answer.text).total).toBeGreaterThan(400)
    await expect(ask('analyse', body({ text: '| Hm7 |' }))).rejects.toMatchObject({
      code: 'bad_text',
      errors: [{ path: 'text', at: 2, found: 'Hm7' }],
    })
    await expect(ask('row', { ...body({ title: 'Quay', text: '| C |' }), kind: 'charts' })).resolves.toMatchObject({
      fields: { title: 'Quay', tags: [] },
    })
  })
  it('goes on with others while a long plan is under way, and ends it when its asker hangs up', async () => {
    const gone = new AbortController()
    const plan = code(ask('plan', ENDLESS, 'a', gone.signal))
    expect(await code(ask('overlays', SMALL, 'b'))).toBe('done')
    gone.abort()
    expect(await plan).toBe('busy')
    expect(await code(ask('plan', body({ text: '| Dm7 | G7 |' }), 'b'))).toBe('done')
  })
  it('refuses what would wait too long in line, and takes what comes after', async () => {
    const gone = new AbortController()
    setMaxListeners(0, gone.signal)
    const plans = Array.from({ length: MOST_WAITING.ofOne + 3 }, () => code(ask('plan', ENDLESS, 'a', gone.signal)))
    // One is under way, as many as there is room for wait, the others hear so at once.
    expect(await Promise.all(plans.slice(-2))).toEqual(['busy', 'busy'])
    const other = code(ask('plan', body({ text: '| Dm7 | G7 |' }), 'b'))
    gone.abort()
    expect(new Set(await Promise.all(plans))).toEqual(new Set(['busy']))
    expect(await other).toBe('done')
  })
  it('holds so many bytes of bodies at once, and room again when they are answered', async () => {
    const big = (): Asked => ({ query: [], body: new Uint8Array(10 * 1024 * 1024), type: 'multipart/form-data' })
    const all = await Promise.all(Array.from({ length: 8 }, (_, i) => code(ask('import', big(), `a${i}`))))
    expect(all.filter((c) => c === 'busy')).toHaveLength(2)
    expect(all.filter((c) => c === 'bad_request')).toHaveLength(6)
    expect(await code(ask('import', big()))).toBe('bad_request')
  })
  it('is not begun for one who has gone already', async () => {
    const gone = new AbortController()
    gone.abort()
    expect(await code(ask('overlays', SMALL, 'a', gone.signal))).toBe('busy')
  })
})
