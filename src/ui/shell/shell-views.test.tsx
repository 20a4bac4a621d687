// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { $address } from '../state/address/address.ts'
import { $rows, addRow, changeRow, lookForLeft } from '../state/kept/rows.ts'
import { $legendOpen } from '../state/page/dialogs.ts'
import { say } from '../state/page/notices.ts'
import { undoLast } from '../state/shell/undoing.ts'
import type { StandIn } from '../state/testing/server.ts'
import { closeSketch } from '../state/tune/asking.ts'
import { at, props, startPage } from '../testing/page.ts'
import { AskBar } from './AskBar.tsx'
import { KEYS } from './keys.ts'
import { Legend } from './Legend.tsx'
import { Notices } from './Notices.tsx'

let server: StandIn
beforeAll(() => {
  server = startPage('key = Eb\n| Fm7 | Bb7 | Ebmaj7 | % |')
})
beforeEach(() => at('/desk?chart=c1&bar=2'))
afterEach(cleanup)

describe('the ask bar', () => {
  const field = () => screen.getByRole<HTMLInputElement>('searchbox', { name: 'Ask' })
  const shown = () => render(<AskBar openChart={props().openChart} />)
  const type = (text: string) => fireEvent.change(field(), { target: { value: text } })
  const enter = () => fireEvent.keyDown(field(), { key: 'Enter' })

  it('carries a question out at the open chord, and is empty again', () => {
    shown()
    type('B dorian over Bb7 to Ebmaj7')
    enter()
    expect($address.get()).toMatchObject({ over: 'B dorian', chart: 'c1', sketch: null, bar: 2 })
    expect(field().value).toBe('')
  })

  it('another chord becomes a sketch, from which one goes back, and forth again by undo', async () => {
    shown()
    type('E triad over D7')
    enter()
    expect($address.get()).toMatchObject({ sketch: '| D7 |', chart: 'c1' })
    act(() => void closeSketch())
    expect($address.get()?.sketch).toBeNull()
    await act(() => undoLast())
    expect($address.get()?.sketch).toBe('| D7 |')
  })

  it.each([
    ['Bb foo over Eb7', 'foo'],
    ['B dorian over Hm7', 'Hm7'],
  ])('“%s” is told to be wrong at “%s”, and what was typed stays', (text, wrong) => {
    shown()
    type(text)
    enter()
    expect(document.body.textContent).toContain(`“${wrong}”`)
    expect([field().value, field().getAttribute('aria-invalid')]).toEqual([text, 'true'])
  })

  it('suggests as one types, over the chord in view; arrows choose, Enter takes', () => {
    shown()
    type('B minor p')
    const options = screen.getAllByRole('option')
    expect(options[0]?.textContent).toContain('B minor pentatonic over B♭7 to E♭maj7')
    fireEvent.keyDown(field(), { key: 'ArrowDown' })
    expect(field().getAttribute('aria-activedescendant')).toBe(options[0]?.id)
    enter()
    expect($address.get()?.over).toBe('B minor pentatonic')
    shown()
  })
})

describe('notices', () => {
  const shown = () => render(<Notices address={props().address} />)
  const idea = {
    overlay: 'B dorian',
    chord: 'Bb7',
    next: null,
    note: null,
    tags: [],
    chartId: null,
    bar: null,
    beat: null,
  }

  it('what just happened is told with its undo', async () => {
    shown()
    act(() => changeRow('charts', 'c1', { tags: ['late'] }))
    await waitFor(() => expect(server.rows.get('charts/c1')?.tags).toEqual(['late']))
    act(() => say('Tagged.', 'undo'))
    fireEvent.click(screen.getByRole('button', { name: 'Take it back' }))
    await waitFor(() => expect(server.rows.get('charts/c1')?.tags).toEqual([]))
    expect(screen.getByRole('status').textContent).toContain('Undone: the tags of Bollard.')
  })

  it('what is not kept says so wherever one is, until it is', async () => {
    shown()
    server.dead = true
    const id = addRow('ideas', idea)
    const waiting = await screen.findByRole('region', { name: 'Not kept: B dorian over Bb7' })
    expect(waiting.textContent).toContain('held in this browser')
    server.dead = false
    await waitFor(() => expect($rows.ideas.get()[id]?.state).toBe('kept'), { timeout: 5000 })
    expect(screen.queryByRole('region', { name: /^Not kept/ })).toBeNull()
  })

  it('a conflict of a row one does not look at is settled from there', async () => {
    const id = addRow('ideas', idea)
    await waitFor(() => expect($rows.ideas.get()[id]?.state).toBe('kept'))
    server.put('ideas', id, { ...server.rows.get(`ideas/${id}`), note: 'theirs' })
    shown()
    act(() => changeRow('ideas', id, { note: 'mine' }))
    fireEvent.click(await screen.findByRole('button', { name: 'Take the other' }))
    await waitFor(() => expect($rows.ideas.get()[id]?.row.note).toBe('theirs'))
    expect(screen.queryByRole('alert')).toBeNull()
  })

  it('what an earlier visit left of a new row is kept or dropped; of a known one it leads there', async () => {
    const left = (n: number, more: object) =>
      localStorage.setItem(
        `crossfade-unsent gone${n} x`,
        JSON.stringify({ title: `Left ${n}`, row: idea, patch: idea, ...more }),
      )
    left(1, { kind: 'ideas', id: '5b0f6f5e-0000-4b4e-9a38-5d0c7d1f2a10', version: 0 })
    left(2, { kind: 'ideas', id: '6b0f6f5e-0000-4b4e-9a38-5d0c7d1f2a10', version: 0 })
    left(3, { kind: 'charts', id: 'elsewhere', version: 2 })
    shown()
    await act(() => lookForLeft())
    expect(screen.getAllByRole('region', { name: 'Held from earlier' })).toHaveLength(3)
    fireEvent.click(screen.getAllByRole('button', { name: 'Keep it now' })[0] as HTMLElement)
    await waitFor(() => expect(server.rows.has('ideas/5b0f6f5e-0000-4b4e-9a38-5d0c7d1f2a10')).toBe(true))
    fireEvent.click(screen.getAllByRole('button', { name: 'Drop it' })[0] as HTMLElement)
    expect(screen.getAllByRole('region', { name: 'Held from earlier' })).toHaveLength(1)
    fireEvent.click(screen.getByRole('button', { name: 'Show it' }))
    expect($address.get()).toMatchObject({ view: 'charts', chart: 'elsewhere' })
    await screen.findByRole('button', { name: 'Keep it as a new one' })
  })
})

describe('the legend', () => {
  it('prints every key there is, each once, under where it acts', () => {
    act(() => $legendOpen.set(true))
    render(<Legend />)
    const shown = [...document.querySelectorAll('dt')].map((t) => t.textContent)
    expect(shown).toEqual(expect.arrayContaining(KEYS.map((k) => k.shown)))
    expect(new Set(KEYS.map((k) => `${k.where} ${k.shown}`)).size).toBe(KEYS.length)
    act(() => $legendOpen.set(false))
  })

  it('no two keys answer to one press', () => {
    const all = KEYS.flatMap((k) => k.keys)
    expect(new Set(all).size).toBe(all.length)
  })
})
