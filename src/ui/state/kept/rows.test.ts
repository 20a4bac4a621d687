// @vitest-environment happy-dom
import fc from 'fast-check'
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { $address, go } from '../address/address.ts'
import { editText } from '../charts/editing.ts'
import { $notice } from '../page/notices.ts'
import { redoLast, undoLast } from '../shell/undoing.ts'
import { addressAt, keptChart } from '../testing/kept.ts'
import { type StandIn, standIn } from '../testing/server.ts'
import { keepSetting, slideSetting } from './keep-setting.ts'
import { $kept, keepIdea, moreIdeas, openAgain, removeIdea, startKept } from './kept.ts'
import { fetchOver, rowsOver } from './lists.ts'
import type { ChartRow } from './row-types.ts'
import {
  $left,
  $rows,
  addRow,
  answerOffer,
  changeRow,
  dropLeft,
  flushAll,
  keepAnew,
  keepLeft,
  lookForLeft,
  offerLeft,
  settleRow,
  standingOf,
} from './rows.ts'

let server: StandIn = standIn()
let count = 0
const chart = (title = 'Chart'): string => {
  const id = `c${++count}`
  server.put('charts', id, { title, text: `title = ${title}\n| C6 |`, tags: [], overrides: null })
  return id
}
const kept = (kind: string, id: string) => server.rows.get(`${kind}/${id}`)
const opened = async (id: string): Promise<ChartRow> => {
  go({ chart: id, sketch: null })
  await vi.waitFor(() => expect($kept.get()?.chart?.id).toBe(id))
  return standingOf('charts', id)?.row as ChartRow
}
const settled = (check: () => void) => vi.waitFor(check, { timeout: 4000 })
const PLAIN = { errors: [], chart: null } as never

beforeAll(() => {
  vi.stubGlobal('fetch', (path: string, init?: RequestInit) => server.fetch(path, init))
  $address.set(addressAt('/desk'))
  startKept({ ...keptChart('| C6 |'), chart: null, charts: [] })
})
beforeEach(async () => {
  server.dead = false
  server.release()
  await flushAll()
  server = standIn()
})

describe('the chart the address names', () => {
  it('is the one in sight, or none: never the one before it', async () => {
    const [a, b] = [chart('A'), chart('B')]
    await opened(a)
    server.hold = true
    go({ chart: b })
    expect($kept.get()).toMatchObject({ chart: null, loading: true, failed: null })
    server.dead = true
    server.release()
    await settled(() => expect($kept.get()).toMatchObject({ chart: null, loading: false }))
    expect($kept.get()?.failed).toContain('not answering')
    server.dead = false
    openAgain()
    await settled(() => expect($kept.get()?.chart?.title).toBe('B'))
  })

  it('that is not there any more is said to be missing; a list knows it no longer', async () => {
    go({ chart: 'nowhere' })
    await settled(() => expect($kept.get()).toMatchObject({ chart: null, missing: true, loading: false }))
  })

  it('changes its title in every list as it is typed', async () => {
    const id = chart('Rope')
    const row = await opened(id)
    changeRow('charts', id, { title: 'Rope and chain', text: row.text })
    expect($kept.get()?.charts.find((c) => c.id === id)?.title).toBe('Rope and chain')
    await settled(() => expect(kept('charts', id)?.title).toBe('Rope and chain'))
  })
})

describe('two charts, in whatever order they are typed into', () => {
  it('each keeps what was typed last into it, and says so truly', async () => {
    const edit = fc.record({ which: fc.nat({ max: 1 }), rest: fc.boolean(), dead: fc.boolean() })
    await fc.assert(
      fc.asyncProperty(fc.array(edit, { minLength: 1, maxLength: 8 }), async (edits) => {
        const ids = [chart('One'), chart('Two')]
        const typed = ['', '']
        for (const [n, { which, rest, dead }] of edits.entries()) {
          const row = await opened(ids[which] as string)
          server.dead = dead
          typed[which] = `| C6 | F${n + 1 < 10 ? 6 : 7} | ${n} |`
          editText(row, typed[which] as string, PLAIN)
          if (rest) await new Promise((go) => setTimeout(go, 1))
          expect(standingOf('charts', row.id)?.row.text).toBe(typed[which])
          if (standingOf('charts', row.id)?.state === 'kept') expect(kept('charts', row.id)?.text).toBe(typed[which])
          server.dead = false
        }
        await settled(() => {
          for (const [i, id] of ids.entries()) {
            const standing = standingOf('charts', id)
            if (!standing || typed[i] === '') continue
            expect([standing.state, kept('charts', id)?.text]).toEqual(['kept', typed[i]])
          }
        })
      }),
      { numRuns: 12 },
    )
  })
})

describe('what is made', () => {
  const idea = { overlay: 'B dorian', chord: 'Eb7', next: null, chartId: null, bar: null, beat: null }

  it('is there at once, and said to be kept when it is', async () => {
    server.hold = true
    const done = keepIdea(idea)
    expect($kept.get()?.ideas[0]).toMatchObject({ overlay: 'B dorian', version: 0 })
    $notice.set(null)
    server.release()
    expect(await done).toBe(true)
    expect($notice.get()?.text).toBe('Kept.')
  })

  it('while the server is dead waits, all of it, and is sent in its order', async () => {
    server.dead = true
    expect(await keepIdea(idea)).toBe(false)
    expect(await keepIdea({ ...idea, overlay: 'Gb lydian' })).toBe(false)
    server.dead = false
    await settled(() => {
      const overlays = [...server.rows.values()].map((r) => r.overlay)
      expect(overlays.sort()).toEqual(['B dorian', 'Gb lydian'])
    })
  })

  it('over a chart that is not kept yet waits for it', async () => {
    server.hold = true
    const over = addRow('charts', { title: 'New', text: '| C6 |', tags: [], overrides: null })
    const done = keepIdea({ ...idea, chartId: over, bar: 1, beat: 1 })
    server.release()
    await done
    const posts = server.asked.filter((a) => a.startsWith('POST'))
    expect(posts).toEqual(['POST charts', 'POST ideas'])
  })

  it('and removed again is gone here and there, and comes back by undo', async () => {
    await keepIdea(idea)
    const row = $kept.get()?.ideas.find((i) => kept('ideas', i.id))
    await removeIdea(row?.id ?? '')
    expect(kept('ideas', row?.id ?? '')).toBeUndefined()
    await undoLast()
    expect($notice.get()?.text).toBe('Undone: removing the idea B dorian over E♭7.')
    expect($kept.get()?.ideas.some((i) => i.id === row?.id)).toBe(true)
    await redoLast()
    expect($kept.get()?.ideas.some((i) => i.id === row?.id)).toBe(false)
  })
})

describe('what lies over a chart', () => {
  it('is all of it, however many pages; what was removed elsewhere goes', async () => {
    const id = chart()
    const line = (n: number) => ({ name: `Line ${n}`, chartId: id, text: null, line: { notes: [] }, tags: [] })
    for (let n = 0; n < 450; n++) server.put('lines', `${id}-${n}`, line(n))
    server.put('lines', `other-${id}`, { ...line(0), chartId: 'other' })
    await fetchOver('lines', id)
    expect(rowsOver('lines', id)).toHaveLength(450)
    server.rows.delete(`lines/${id}-7`)
    await fetchOver('lines', id)
    expect(rowsOver('lines', id).map((r) => r.id)).not.toContain(`${id}-7`)
    expect(rowsOver('lines', id)).toHaveLength(449)
  })

  it('ideas of other charts are fetched page by page', async () => {
    const before = $kept.get()?.ideas.length ?? 0
    for (let n = 0; n < 120; n++)
      server.put('ideas', `i${n}`, { overlay: 'C6', chord: 'C6', chartId: 'x', tags: [], next: null })
    await moreIdeas()
    expect(($kept.get()?.ideas.length ?? 0) - before).toBeLessThanOrEqual(50)
  })
})

describe('settings', () => {
  it('two at once: the second stands, also when the first is still being made', async () => {
    server.hold = true
    keepSetting('clef', 'bass')
    keepSetting('clef', 'alto')
    server.release()
    await settled(() => expect([...server.rows.values()].find((r) => r.name === 'clef')?.value).toBe('alto'))
    expect($rows.settings.get().clef?.state).toBe('kept')
  })

  it('what slides is one thing to undo', async () => {
    keepSetting('hearTempo', 90)
    await flushAll()
    for (const tempo of [91, 95, 99]) {
      slideSetting('hearTempo', tempo)
      await flushAll()
    }
    await undoLast()
    expect($rows.settings.get().hearTempo?.row.value).toBe(90)
    expect($notice.get()?.text).toBe('Undone: the tempo an overlay is heard at.')
  })
})

describe('undo', () => {
  it('names what it takes back, and in the order it was done over several rows', async () => {
    const [a, b] = [chart('Bell'), chart('Buoy')]
    const row = await opened(a)
    editText(row, 'title = Bell\n| F6 |', PLAIN)
    await opened(b)
    changeRow('charts', b, { tags: ['late'] })
    await undoLast()
    expect($notice.get()?.text).toBe('Undone: the tags of Buoy.')
    await undoLast()
    expect($notice.get()?.text).toBe('Undone: the text of Bell.')
    expect([kept('charts', a)?.text, kept('charts', b)?.tags]).toEqual(['title = Bell\n| C6 |', []])
    await redoLast()
    expect(kept('charts', a)?.text).toBe('title = Bell\n| F6 |')
  })

  it('takes back what was not sent yet without asking the server', async () => {
    const id = chart('Cleat')
    await opened(id)
    server.dead = true
    changeRow('charts', id, { tags: ['x'] })
    await undoLast()
    expect(standingOf('charts', id)?.row.tags).toEqual([])
    expect($notice.get()?.text).toContain('Undone: ')
    server.dead = false
    await flushAll()
    expect(kept('charts', id)?.tags).toEqual([])
  })
})

describe('what another changed or removed', () => {
  it('corrections of different chords stand side by side', async () => {
    const id = chart()
    await opened(id)
    server.put('charts', id, { ...kept('charts', id), overrides: [{ bar: 1, beat: 1, job: 'tonic' }] })
    changeRow('charts', id, { overrides: [{ bar: 2, beat: 1, job: 'tonic' }] })
    await settled(() => expect(kept('charts', id)?.overrides).toHaveLength(2))
    expect(standingOf('charts', id)?.state).toBe('kept')
  })

  it('a conflict of one row keeps no other waiting; theirs can be taken', async () => {
    const [a, b] = [chart('A'), chart('B')]
    await opened(a)
    server.put('charts', a, { ...kept('charts', a), text: 'theirs' })
    changeRow('charts', a, { text: 'mine' })
    await settled(() => expect(standingOf('charts', a)?.state).toBe('conflict'))
    await opened(b)
    changeRow('charts', b, { text: 'more' })
    await settled(() => expect(kept('charts', b)?.text).toBe('more'))
    settleRow('charts', a, 'theirs')
    expect(standingOf('charts', a)).toMatchObject({ state: 'kept', row: { text: 'theirs' } })
  })

  it('a row removed elsewhere is kept anew with all that was typed', async () => {
    const id = chart('Gone')
    await opened(id)
    server.rows.delete(`charts/${id}`)
    changeRow('charts', id, { text: 'typed' })
    await settled(() => expect(standingOf('charts', id)?.state).toBe('gone'))
    const anew = keepAnew('charts', id) ?? ''
    await settled(() => expect(kept('charts', anew)).toMatchObject({ title: 'Gone', text: 'typed' }))
    expect(standingOf('charts', id)).toBeUndefined()
  })

  it('what the server refuses is said with its words, and is not sent again by itself', async () => {
    const id = chart()
    await opened(id)
    changeRow('charts', id, { text: '| H7 |' })
    await settled(() => expect(standingOf('charts', id)).toMatchObject({ state: 'unreadable', why: 'bad_text' }))
    const before = server.asked.length
    await flushAll()
    await new Promise((go) => setTimeout(go, 50))
    expect(server.asked.length - before).toBeLessThanOrEqual(1)
  })
})

describe('what a tab that is gone left', () => {
  const leave = (unsent: object, n = 1): void =>
    localStorage.setItem(`crossfade-unsent gone${n} x`, JSON.stringify(unsent))

  it('of an open row is offered there, taken up or dropped, one after another', async () => {
    const id = chart('Left')
    const row = await opened(id)
    const left = { kind: 'charts', id, version: row.version, title: 'Left', row: {} }
    leave({ ...left, patch: { text: 'from one' } }, 1)
    leave({ ...left, patch: { text: 'from two' } }, 2)
    leave({ ...left, patch: { text: row.text } }, 3)
    await lookForLeft()
    offerLeft('charts', id)
    expect(standingOf('charts', id)?.offered?.patch).toEqual({ text: 'from one' })
    answerOffer('charts', id, false)
    expect(standingOf('charts', id)?.offered?.patch).toEqual({ text: 'from two' })
    answerOffer('charts', id, true)
    await settled(() => expect(kept('charts', id)?.text).toBe('from two'))
    expect($left.get().filter((l) => l.id === id).length).toBeLessThanOrEqual(1)
  })

  it('of a new row is kept at a press, or let go of', async () => {
    const fields = { overlay: 'E phrygian', chord: 'Fmaj7', next: null, note: null, tags: [], chartId: null }
    const row = { ...fields, bar: null, beat: null }
    leave(
      { kind: 'ideas', id: '7b0f6f5e-0000-4b4e-9a38-5d0c7d1f2a10', version: 0, title: 'E phrygian', row, patch: row },
      4,
    )
    leave({ kind: 'ideas', id: '8b0f6f5e-0000-4b4e-9a38-5d0c7d1f2a10', version: 0, title: 'other', row, patch: row }, 5)
    await lookForLeft()
    const [first, second] = $left.get().filter((l) => l.version === 0)
    if (!first || !second) throw new Error('nothing was left')
    keepLeft(first)
    dropLeft(second)
    await settled(() => expect(kept('ideas', first.id)).toMatchObject({ overlay: 'E phrygian' }))
    expect(kept('ideas', second.id)).toBeUndefined()
    expect($left.get().filter((l) => l.version === 0)).toEqual([])
  })

  it('a store that holds nonsense, or is refused, holds nothing', async () => {
    localStorage.setItem('crossfade-unsent gone9 x', '{"kind":')
    await lookForLeft()
    expect($left.get().some((l) => l.key.includes('gone9'))).toBe(false)
    const full = () => {
      throw new DOMException('full', 'QuotaExceededError')
    }
    vi.stubGlobal('localStorage', { getItem: () => null, setItem: full, removeItem: full, length: 0, key: () => null })
    const id = chart()
    await opened(id)
    server.dead = true
    changeRow('charts', id, { text: 'typed' })
    await settled(() => expect(standingOf('charts', id)).toMatchObject({ state: 'unreachable', held: false }))
    vi.stubGlobal('localStorage', window.localStorage)
    server.dead = false
    await settled(() => expect(kept('charts', id)?.text).toBe('typed'))
  })
})
