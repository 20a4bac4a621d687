import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { mergeByKey, rebased } from './edits.ts'
import { keptRow } from './kept-row.ts'
import type { Answer } from './request.ts'
import type { KeptRow, Ports, RowKind, Standing } from './standing.ts'

type Row = { readonly id: string; readonly version: number; readonly text: string; readonly tags: string }
const KIND: RowKind = { fields: ['text', 'tags'], merges: {}, asks: true }
const FIRST: Row = { id: 'r', version: 1, text: 'text', tags: 'tags' }

/** How the server answers the next request: at once, late, not at all, after it kept what was sent, or never. */
type Manner = 'soon' | 'late' | 'dead' | 'lost' | 'hangs' | 'refuses'

/** A server of one row, a clock and a browser that holds what is unsent: all in the hands of the test. */
const world = (first: Row | null) => {
  const server = { row: first, manner: 'soon' as Manner, steps: [] as string[], history: [] as Row[] }
  let clock = 0
  let timers: { readonly at: number; readonly work: () => void }[] = []
  let held: Readonly<Record<string, unknown>> | null = null
  let standing: Standing<Row> | null = null
  const after = (ms: number): Promise<void> => new Promise((go) => timers.push({ at: clock + ms, work: go }))
  const NOBODY = { ok: false, code: 'unreachable', detail: 'no', passing: true } as const

  const serve = async (
    body: Readonly<Record<string, unknown>>,
    step: string,
    version: number,
  ): Promise<Answer<Row>> => {
    const { manner } = server
    if (manner === 'hangs') await after(30_000)
    if (manner === 'dead' || manner === 'hangs') return NOBODY
    if (manner === 'refuses') return { ok: false, code: 'bad_text', detail: 'unread', passing: false }
    if (manner === 'late') await after(900)
    const { row } = server
    if (row === null && version > 0) return { ok: false, code: 'not_found', detail: 'gone', passing: false }
    if (row && version === 0) return { ok: false, code: 'id_taken', detail: 'there', passing: false, current: row }
    if (row && row.version !== version)
      return { ok: false, code: 'stale_version', detail: 'stale', passing: false, current: row }
    server.row = { ...(row ?? FIRST), ...(body as Partial<Row>), version: version + 1 }
    server.steps.push(step)
    server.history.push(server.row)
    return manner === 'lost' ? NOBODY : { ok: true, value: server.row }
  }
  let words = 0
  const ports: Ports<Row> = {
    make: (_, body, step) => serve(body, step, 0),
    change: (row, body, step) => serve(body, step, row.version),
    later: (work, ms) => {
      const timer = { at: clock + ms, work }
      timers.push(timer)
      return () => {
        timers = timers.filter((t) => t !== timer)
      }
    },
    now: () => clock,
    newStep: () => `step ${words++}`,
    hold: (_, patch) => {
      held = Object.keys(patch).length > 0 ? patch : null
      return held !== null
    },
    tell: (now) => {
      standing = now
    },
  }
  const settle = async (): Promise<void> => {
    for (let i = 0; i < 12; i++) await Promise.resolve()
  }
  return {
    server,
    ports,
    held: () => held,
    standing: () => standing,
    begin: (row: Row): KeptRow<Row> => keptRow(KIND, row, ports),
    /** The tab is closed: nothing of it goes on, and what was held stays held. */
    close: () => {
      timers = []
    },
    wait: async (ms: number): Promise<void> => {
      const until = clock + ms
      await settle()
      for (;;) {
        const due = timers.filter((t) => t.at <= until).sort((a, b) => a.at - b.at)[0]
        if (!due) break
        timers = timers.filter((t) => t !== due)
        clock = Math.max(clock, due.at)
        due.work()
        await settle()
      }
      clock = until
    },
  }
}

describe('a kept row', () => {
  it('waits for rest, sends once, and is kept only when the server says so', async () => {
    const w = world(FIRST)
    const row = w.begin(FIRST)
    row.change({ text: 'a' }, { rest: 600, join: 'text' })
    row.change({ text: 'ab' }, { rest: 600, join: 'text' })
    expect(row.now()).toMatchObject({ state: 'waiting', row: { text: 'ab' }, held: true })
    await w.wait(599)
    expect(w.server.history).toEqual([])
    w.server.manner = 'late'
    await w.wait(800)
    expect(row.now().state).toBe('waiting')
    await w.wait(800)
    expect([row.now().state, w.server.row?.text, w.server.history.length, w.held()]).toEqual(['kept', 'ab', 1, null])
  })

  it('sends what was changed meanwhile after it, each step by itself', async () => {
    const w = world(FIRST)
    const row = w.begin(FIRST)
    w.server.manner = 'late'
    row.change({ text: 'a' })
    await w.wait(10)
    row.change({ tags: 'x' })
    row.change({ tags: 'y' })
    expect(row.now().row).toMatchObject({ text: 'a', tags: 'y' })
    await w.wait(5000)
    expect(w.server.row).toMatchObject({ text: 'a', tags: 'y', version: 4 })
    expect(new Set(w.server.steps).size).toBe(3)
  })

  it('brings what was changed here over what another changed in other fields; in the same it asks', async () => {
    const w = world(FIRST)
    const row = w.begin(FIRST)
    w.server.row = { ...FIRST, version: 2, tags: 'theirs' }
    row.change({ text: 'mine' })
    await w.wait(100)
    expect([row.now().state, w.server.row]).toMatchObject(['kept', { text: 'mine', tags: 'theirs', version: 3 }])
    w.server.row = { ...FIRST, version: 4, text: 'theirs' }
    row.change({ text: 'mine again' })
    await w.wait(100)
    row.change({ text: 'mine again, and on' })
    await w.wait(100)
    expect(row.now()).toMatchObject({
      state: 'conflict',
      row: { text: 'mine again, and on' },
      theirs: { text: 'theirs' },
    })
    row.settle('mine')
    await w.wait(100)
    expect([row.now().state, w.server.row?.text]).toEqual(['kept', 'mine again, and on'])
  })

  it('takes in what it heard from elsewhere while its own was under way, or while it asked', async () => {
    const w = world(FIRST)
    let answered = (): void => undefined
    const change: Ports<Row>['change'] = async (...sent) => {
      const answer = await w.ports.change(...sent)
      await new Promise<void>((go) => {
        answered = go
      })
      return answer
    }
    const slow = keptRow(KIND, FIRST, { ...w.ports, change })
    slow.change({ text: 'mine' })
    await w.wait(10)
    w.server.row = { ...FIRST, version: 3, text: 'theirs, over mine' }
    slow.adopt(w.server.row)
    answered()
    await w.wait(10)
    expect(slow.now()).toMatchObject({ state: 'kept', row: w.server.row })

    const row = w.begin(w.server.row)
    w.server.row = { ...FIRST, version: 4, text: 'theirs' }
    row.change({ text: 'mine' })
    await w.wait(100)
    expect(row.now()).toMatchObject({ state: 'conflict', theirs: { text: 'theirs' } })
    row.adopt({ ...FIRST, version: 5, text: 'theirs, and on' })
    row.adopt({ ...FIRST, version: 4, text: 'theirs' })
    expect(row.now()).toMatchObject({ state: 'conflict', row: { text: 'mine' }, theirs: { text: 'theirs, and on' } })
    row.settle('theirs')
    expect(row.now()).toMatchObject({ state: 'kept', row: { text: 'theirs, and on', version: 5 } })
  })

  it('makes a new row once, however often its answer is lost', async () => {
    const w = world(null)
    w.server.manner = 'lost'
    const row = w.begin({ ...FIRST, version: 0, text: 'new' })
    await w.wait(10)
    row.change({ tags: 'more' })
    w.server.manner = 'soon'
    await w.wait(20_000)
    expect([row.now().state, w.server.row]).toMatchObject(['kept', { text: 'new', tags: 'more' }])
  })

  it('says that a row is gone, and keeps what was typed in sight', async () => {
    const w = world(FIRST)
    const row = w.begin(FIRST)
    w.server.row = null
    row.change({ text: 'typed' })
    await w.wait(100)
    row.change({ text: 'typed on' })
    await w.wait(60_000)
    expect(row.now()).toMatchObject({ state: 'gone', row: { text: 'typed on' }, held: true })
  })

  it('holds what does not read and sends none of it', async () => {
    const w = world(FIRST)
    const row = w.begin(FIRST)
    row.holdUnread({ text: 'a b c' })
    await w.wait(5000)
    expect(row.now()).toMatchObject({ state: 'unreadable', row: { text: 'text' }, unread: { text: 'a b c' } })
    expect([w.server.history, w.held()]).toEqual([[], { text: 'a b c' }])
    row.change({ text: 'a' })
    await w.wait(5000)
    expect([row.now().state, w.server.row?.text]).toEqual(['kept', 'a'])
  })

  it('takes back what was not sent yet, step by step', async () => {
    const w = world(FIRST)
    const row = w.begin(FIRST)
    w.server.manner = 'dead'
    row.change({ text: 'a' })
    row.change({ tags: 'x' })
    await w.wait(100)
    expect([row.dropLast(), row.now().row]).toMatchObject([true, { text: 'a', tags: 'tags' }])
    w.server.manner = 'soon'
    await w.wait(20_000)
    expect([w.server.row?.text, w.server.row?.tags, row.dropLast()]).toEqual(['a', 'tags', false])
  })
})

type Act =
  | { readonly do: 'type'; readonly field: 'text' | 'tags'; readonly rest: number; readonly join: boolean }
  | { readonly do: 'manner'; readonly manner: Manner }
  | { readonly do: 'wait'; readonly ms: number }
  | { readonly do: 'other'; readonly field: 'text' | 'tags' }
  | { readonly do: 'close' }
  | { readonly do: 'settle'; readonly whose: 'mine' | 'theirs' }

const field = fc.constantFrom('text' as const, 'tags' as const)
const acts: fc.Arbitrary<readonly Act[]> = fc.array(
  fc.oneof(
    {
      weight: 5,
      arbitrary: fc.record({
        do: fc.constant('type' as const),
        field,
        rest: fc.constantFrom(0, 600),
        join: fc.boolean(),
      }),
    },
    {
      weight: 3,
      arbitrary: fc.record({ do: fc.constant('wait' as const), ms: fc.constantFrom(0, 50, 700, 3000, 40_000) }),
    },
    {
      weight: 2,
      arbitrary: fc.record({
        do: fc.constant('manner' as const),
        manner: fc.constantFrom<Manner>('soon', 'late', 'dead', 'lost', 'hangs', 'refuses'),
      }),
    },
    { weight: 1, arbitrary: fc.record({ do: fc.constant('other' as const), field }) },
    { weight: 1, arbitrary: fc.constant({ do: 'close' as const }) },
    {
      weight: 1,
      arbitrary: fc.record({
        do: fc.constant('settle' as const),
        whose: fc.constantFrom('mine' as const, 'theirs' as const),
      }),
    },
  ),
  { maxLength: 40 },
)

describe('whatever happens', () => {
  it('what was typed last is on the server, on the screen or offered, and “kept” is true', async () => {
    await fc.assert(
      fc.asyncProperty(acts, async (all) => {
        const w = world(FIRST)
        let row = w.begin(FIRST)
        /** What the player typed last into each field, and did not give up for another's. */
        let typed: Partial<Record<'text' | 'tags', string>> = {}
        let n = 0
        let others = false
        const isTrue = (): void => {
          const { row: shown, state, held, offered } = row.now()
          if (!others) expect(state).not.toBe('conflict')
          for (const [f, value] of Object.entries(typed)) {
            const wasKept = w.server.history.some((r) => r[f as 'text'] === value)
            if (!wasKept) expect([shown[f as 'text'], offered?.patch[f]], f).toContain(value)
            if (!wasKept && offered?.patch[f] !== value) expect(state).not.toBe('kept')
          }
          if (state === 'kept') expect([FIRST, ...w.server.history]).toContainEqual(shown)
          else expect(held).toBe(true)
        }
        for (const act of all) {
          if (act.do === 'type') {
            const value = `${act.field} ${n++}`
            typed = { ...typed, [act.field]: value }
            row.change({ [act.field]: value }, act.join ? { rest: act.rest, join: act.field } : { rest: act.rest })
          } else if (act.do === 'manner') w.server.manner = act.manner
          else if (act.do === 'wait') await w.wait(act.ms)
          else if (act.do === 'other' && w.server.row) {
            others = true
            w.server.row = { ...w.server.row, [act.field]: `theirs ${n++}`, version: w.server.row.version + 1 }
            w.server.history.push(w.server.row)
          } else if (act.do === 'settle') {
            if (act.whose === 'theirs' && row.now().theirs) typed = {}
            row.settle(act.whose)
          } else if (act.do === 'close' && w.server.row) {
            const left = { ...row.now().offered?.patch, ...w.held() }
            w.close()
            row = w.begin(w.server.row)
            row.offer({ key: 'left', patch: left })
          }
          isTrue()
        }
        w.server.manner = 'soon'
        for (let i = 0; i < 4; i++) {
          // What the server refused waits for another word of the player's; everything else is sent by itself.
          if (row.now().state === 'unreadable') {
            typed = { ...typed, text: `at last ${i}` }
            row.change({ text: `at last ${i}` })
          }
          row.settle('mine')
          await w.wait(60_000)
        }
        isTrue()
        expect(row.now().state).toBe('kept')
        row.answerOffer(true)
        await w.wait(60_000)
        row.settle('mine')
        await w.wait(60_000)
        expect(row.now()).toMatchObject({ state: 'kept', offered: null })
        for (const value of Object.values(typed))
          expect(w.server.history.flatMap((r) => [r.text, r.tags])).toContain(value)
      }),
      { numRuns: 2000 },
    )
  })
})

describe('bringing three states of a row together', () => {
  const merges = { overrides: mergeByKey((o) => `${o.bar}`) }
  it.each([
    ['only mine changed', { a: 1, b: 1 }, { a: 2 }, { a: 1, b: 1 }, { a: 2 }],
    ['only theirs in the other field', { a: 1, b: 1 }, { a: 2 }, { a: 1, b: 3 }, { a: 2 }],
    ['both to the same', { a: 1 }, { a: 2 }, { a: 2 }, {}],
    ['both to another', { a: 1 }, { a: 2 }, { a: 3 }, null],
    [
      'things with keys',
      { overrides: [{ bar: 1, job: 'x' }] },
      { overrides: [{ bar: 1, job: 'y' }, { bar: 3 }] },
      { overrides: [{ bar: 1, job: 'x' }, { bar: 2 }] },
      { overrides: [{ bar: 1, job: 'y' }, { bar: 2 }, { bar: 3 }] },
    ],
    [
      'fields in another order, as a database gives them',
      { overrides: [{ bar: 1, beat: 1, job: 'x' }] },
      { overrides: [{ bar: 1, beat: 1, job: 'x' }, { bar: 3 }] },
      { overrides: [{ job: 'x', bar: 1, beat: 1 }, { bar: 2 }] },
      { overrides: [{ job: 'x', bar: 1, beat: 1 }, { bar: 2 }, { bar: 3 }] },
    ],
    [
      'one thing with a key, twice',
      { overrides: null },
      { overrides: [{ bar: 1, job: 'y' }] },
      { overrides: [{ bar: 1, job: 'z' }] },
      null,
    ],
    [
      'one taken away here, another there',
      { overrides: [{ bar: 1 }, { bar: 2 }] },
      { overrides: [{ bar: 2 }] },
      { overrides: [{ bar: 1 }] },
      { overrides: [] },
    ],
  ])('%s', (_, base, mine, theirs, patch) => {
    expect(rebased(base, mine, theirs, merges)).toEqual(patch)
  })
})
