// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { $address } from '../../state/address/address.ts'
import { $recent, startRecent } from '../../state/charts/recent.ts'
import { $rows, adoptRows, changeRow, standingOf } from '../../state/kept/rows.ts'
import type { StandIn } from '../../state/testing/server.ts'
import { at, props, startPage } from '../../testing/page.ts'
import { RowTrouble, standingWords } from '../overlay/RowTrouble.tsx'
import { ChartTools } from './ChartTools.tsx'
import { Harmony } from './Harmony.tsx'
import { Instead } from './Instead.tsx'
import { LeftBehind } from './LeftBehind.tsx'
import { RecentList } from './RecentList.tsx'

let server: StandIn
const chart = () => standingOf('charts', 'c1')
const row = () => {
  const found = chart()
  if (!found) throw new Error('no chart')
  return found.row
}
const kept = () => server.rows.get('charts/c1')

beforeAll(() => {
  server = startPage('| Fmaj7 | Dm7 | Gm7 | C7 |')
  startRecent()
})
beforeEach(() => at('/charts?chart=c1&bar=4'))
afterEach(cleanup)

describe('the harmony beside a chart', () => {
  const shown = () => render(<Harmony openChart={props().openChart} />)

  it('tells each chord its job, and goes to a chord that is pressed', () => {
    shown()
    expect(screen.getByRole('row', { name: /4 C7 V of F/ })).toBeDefined()
    fireEvent.click(screen.getByRole('button', { name: 'Dm7' }))
    expect($address.get()?.bar).toBe(2)
  })

  it('takes the player’s word, refuses one that names no chord, and takes it back', async () => {
    const view = shown()
    fireEvent.change(screen.getByLabelText('It is rather'), { target: { value: 'substitute V' } })
    fireEvent.change(screen.getByLabelText('of'), { target: { value: 'harbour' } })
    fireEvent.click(screen.getByRole('button', { name: 'Say so' }))
    expect(screen.getByRole('alert').textContent).toContain('Name a chord by its root')
    fireEvent.change(screen.getByLabelText('of'), { target: { value: 'B' } })
    fireEvent.click(screen.getByRole('button', { name: 'Say so' }))
    await waitFor(() => expect(kept()?.overrides).toEqual([{ bar: 4, beat: 1, job: 'substitute V of B' }]))
    view.rerender(<Harmony openChart={props().openChart} />)
    expect(screen.getByRole('row', { name: /4 C7 substitute V of B/ })).toBeDefined()
    fireEvent.click(screen.getByRole('button', { name: 'Take it back' }))
    await waitFor(() => expect(kept()?.overrides).toEqual([]))
  })

  it('cuts a chord in two and joins it again', async () => {
    const view = shown()
    fireEvent.click(screen.getByRole('button', { name: 'Split it in two' }))
    view.rerender(<Harmony openChart={props().openChart} />)
    expect(screen.getAllByRole('button', { name: 'C7' })).toHaveLength(2)
    fireEvent.click(screen.getByRole('button', { name: 'Join its halves again' }))
    await waitFor(() => expect(kept()?.overrides).toEqual([]))
  })
})

describe('the tools of a chart', () => {
  const shown = (onTranspose = vi.fn()) =>
    render(<ChartTools row={row()} onTranspose={onTranspose} onRepeat={() => undefined} />)

  it('tags are kept when the field is left, once, and without empty ones', async () => {
    shown()
    const field = screen.getByLabelText('Tags')
    fireEvent.change(field, { target: { value: 'late set, , river ' } })
    fireEvent.blur(field)
    await waitFor(() => expect(kept()?.tags).toEqual(['late set', 'river']))
    const puts = server.asked.length
    fireEvent.blur(field)
    expect(server.asked).toHaveLength(puts)
  })

  it('moves the whole chart by half steps, and offers it in each format', () => {
    const moved = vi.fn()
    shown(moved)
    fireEvent.click(screen.getByRole('button', { name: '½ up' }))
    fireEvent.click(screen.getByRole('button', { name: '½ down' }))
    expect(moved.mock.calls).toEqual([[1], [-1]])
    const files = ['Text', 'MusicXML', 'ABC'].map((name) => screen.getByRole('link', { name }).getAttribute('href'))
    expect(files).toEqual(['text', 'musicxml', 'abc'].map((as) => `/api/v1/charts/c1/export?as=${as}`))
  })
})

describe('ideas that a text left behind', () => {
  it('are named with where they were, and go along or off the chart at a press', async () => {
    const idea = { overlay: 'Db lydian dominant', chord: 'C7', next: 'Fmaj7', note: null, tags: [], chartId: 'c1' }
    const kept = server.put('ideas', 'i1', { ...idea, bar: 2, beat: 1 })
    act(() => adoptRows('ideas', [kept as never]))
    const { kept: all, openChart } = props()
    const { unmount } = render(<LeftBehind row={row()} kept={all} openChart={openChart} />)
    expect(screen.getByRole('region', { name: 'Ideas left behind' }).textContent).toContain(
      'D♭ lydian dominant over C7, bar 2',
    )
    fireEvent.click(screen.getByRole('button', { name: 'Move it to bar 4' }))
    await waitFor(() => expect(server.rows.get('ideas/i1')).toMatchObject({ bar: 4, beat: 1 }))
    unmount()
    const view = render(<LeftBehind row={row()} kept={props().kept} openChart={openChart} />)
    expect(view.container.textContent).toBe('')
  })
})

describe('what could stand there instead', () => {
  it('gives each with its reason, and puts it into the text', () => {
    const replaced: unknown[] = []
    const editor = {
      text: () => row().text,
      replace: (...change: readonly unknown[]) => replaced.push(change),
      changeAll: (...change: readonly unknown[]) => replaced.push(change),
    }
    const { openChart } = props()
    render(<Instead openChart={openChart} editor={{ current: editor as never }} />)
    const lanes = screen.getAllByRole('listitem').map((l) => l.textContent ?? '')
    expect(lanes.some((l) => l.includes('tritone substitute') && l.includes('G♭7'))).toBe(true)
    fireEvent.click(screen.getAllByRole('button', { name: 'Take it' })[0] as HTMLElement)
    expect(replaced).toHaveLength(1)
  })
})

describe('recent charts and sketches', () => {
  it('a sketch is remembered as it is shown, once, opened again, and removed for good', () => {
    for (const sketch of ['| Dm7 | G7 |', '| C6 |', '| Dm7 | G7 |'])
      at(`/desk?${new URLSearchParams({ chart: 'c1', sketch })}`)
    render(<RecentList open="c1" />)
    const names = () => screen.getAllByRole('button').map((b) => b.textContent)
    expect(names().filter((n) => n)).toEqual(['Dm7 G7', 'C6'])
    fireEvent.click(screen.getByRole('button', { name: 'C6' }))
    expect($address.get()).toMatchObject({ sketch: '| C6 |', bar: 1, beat: 1 })
    fireEvent.click(screen.getByRole('button', { name: 'Remove the sketch Dm7 G7' }))
    expect($recent.get().sketches).not.toContain('| Dm7 | G7 |')
    expect(localStorage.getItem('crossfade-recent')).not.toContain('Dm7')
  })
})

describe('what stands in the way of a chart being kept', () => {
  const shown = () => {
    const standing = chart()
    if (!standing) throw new Error('no chart')
    return render(
      <RowTrouble kind="charts" standing={standing} textOf={(r) => String(r.text)} onAnew={(id) => anew.push(id)} />,
    )
  }
  const anew: string[] = []
  const state = () => chart()?.state

  it('nothing, where it is kept', () => {
    const view = shown()
    expect(view.container.textContent).toBe('')
  })

  it('another tab: both are shown, and the player chooses', async () => {
    server.put('charts', 'c1', { ...kept(), text: '| Ebmaj7 |' })
    act(() => changeRow('charts', 'c1', { text: '| Abmaj7 |' }))
    await waitFor(() => expect(state()).toBe('conflict'))
    shown()
    expect(within(screen.getByRole('region', { name: 'Yours' })).getByText('| Abmaj7 |')).toBeDefined()
    expect(within(screen.getByRole('region', { name: 'Theirs' })).getByText('| Ebmaj7 |')).toBeDefined()
    fireEvent.click(screen.getByRole('button', { name: 'Keep this one' }))
    await waitFor(() => expect([state(), kept()?.text]).toEqual(['kept', '| Abmaj7 |']))
  })

  it('a removal elsewhere: it can be kept as a new one', async () => {
    const before = kept()
    server.rows.delete('charts/c1')
    act(() => changeRow('charts', 'c1', { text: '| Bbmaj7 |' }))
    await waitFor(() => expect(state()).toBe('gone'))
    shown()
    expect(screen.getByRole('alert').textContent).toContain('This chart was removed elsewhere')
    fireEvent.click(screen.getByRole('button', { name: 'Keep it as a new one' }))
    await waitFor(() =>
      expect(server.rows.get(`charts/${anew[0]}`)).toMatchObject({ text: '| Bbmaj7 |', title: before?.title }),
    )
    expect($rows.charts.get().c1).toBeUndefined()
  })

  it.each([
    ['kept', {}, 'Kept.'],
    ['waiting', {}, 'Keeping …'],
    ['unreachable', { held: true }, 'held in this browser, and kept as soon as it can be'],
    ['unreachable', { held: false }, 'only in this tab'],
    ['unreadable', { held: true, unread: { text: 'x' } }, 'while something in it does not read; held in this browser'],
    ['unreadable', { held: true, why: 'Too long.' }, 'Not kept: Too long.'],
    ['conflict', {}, 'changed elsewhere'],
    ['gone', {}, 'removed elsewhere'],
  ] as const)('%s %j is told as “%s”', (name, more, words) => {
    const standing = {
      row: { id: 'x', version: 1 },
      state: name,
      unread: {},
      theirs: null,
      why: null,
      held: false,
      offered: null,
    }
    expect(standingWords({ ...standing, ...more })).toContain(words)
  })
})
