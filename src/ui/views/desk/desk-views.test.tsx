// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { pitchClass, readChord } from '../../../core/index.ts'
import { Fretboard } from '../../figures/Fretboard.tsx'
import { Keyboard } from '../../figures/Keyboard.tsx'
import { tuningFrom } from '../../figures/neck.ts'
import { $address } from '../../state/address/address.ts'
import { type Filters, NO_FILTERS } from '../../state/address/filters.ts'
import { adoptRows } from '../../state/kept/rows.ts'
import { undoLast } from '../../state/shell/undoing.ts'
import type { StandIn } from '../../state/testing/server.ts'
import { at, props, startPage } from '../../testing/page.ts'
import { NoChart } from '../overlay/NoChart.tsx'
import { DegreeToggles } from './DegreeToggles.tsx'
import { FilterPanel } from './FilterPanel.tsx'
import { filterWords } from './filter-words.ts'
import { Ideas } from './Ideas.tsx'

let server: StandIn
const chord = (symbol: string) => {
  const read = readChord(symbol)
  if (!read.ok) throw new Error(symbol)
  return read.value
}

beforeAll(() => {
  server = startPage('key = Eb\n| Fm7 | Bb7 | Ebmaj7 | % |')
})
beforeEach(() => at('/desk?chart=c1&bar=2'))
afterEach(cleanup)

describe('the degrees that are wanted', () => {
  const shown = (filters: Filters = NO_FILTERS) => {
    const changes: Filters[] = []
    render(<DegreeToggles chord={chord('Bb7')} filters={filters} onChange={(f) => changes.push(f)} />)
    return changes
  }
  const degrees = () => screen.getAllByRole('button')

  it('are twelve, named over the chord, with one tab stop', () => {
    shown()
    expect(degrees().map((b) => b.textContent)).toEqual([
      '1',
      '♭9',
      '9',
      '♯9',
      '3',
      '11',
      '♯11',
      '5',
      '♭13',
      '13',
      '♭7',
      '7',
    ])
    expect(degrees().filter((b) => b.tabIndex === 0)).toHaveLength(1)
  })

  it('turn from either to must to must not, by press and by key', () => {
    const changes = shown({ ...NO_FILTERS, hold: [2], avoid: [5] })
    expect(screen.getByRole('button', { name: '9: must be there' })).toBeDefined()
    fireEvent.click(screen.getByRole('button', { name: '9: must be there' }))
    fireEvent.click(screen.getByRole('button', { name: '11: must not be there' }))
    expect(changes.map((f) => [f.hold, f.avoid])).toEqual([
      [[], [2, 5]],
      [[2], []],
    ])
    const bar = screen.getByRole('toolbar', { name: 'Degrees' })
    fireEvent.keyDown(bar, { key: 'ArrowRight' })
    fireEvent.keyDown(bar, { key: '+' })
    fireEvent.keyDown(bar, { key: '-' })
    // One step on from where the focus began: the 9, which is wanted already, and is freed; then it is refused.
    expect(changes.slice(2).map((f) => [f.hold, f.avoid])).toEqual([
      [[], [5]],
      [[], [2, 5]],
    ])
  })

  it('are said in words with everything else that is wanted', () => {
    const words = filterWords({ ...NO_FILTERS, hold: [2, 6], avoid: [5], fadeMax: 60, landingMin: 50 }, chord('Bb7'))
    expect(words).toBe('holds 9 and ♯11, no 11, fade to 60, lands at 50 or better')
  })
})

describe('the other filters', () => {
  it('each change keeps the rest; no family left is every family', () => {
    const changes: Filters[] = []
    const filters = { ...NO_FILTERS, families: ['pair'] as const, fadeMax: 60 }
    render(<FilterPanel filters={filters} onChange={(f) => changes.push(f)} />)
    const families = within(screen.getByRole('group', { name: 'Families' }))
    const pressed = families.getAllByRole('button', { pressed: true })
    expect(pressed).toHaveLength(1)
    fireEvent.click(pressed[0] as HTMLElement)
    fireEvent.change(screen.getByLabelText('Lands at least'), { target: { value: '40' } })
    fireEvent.change(screen.getByLabelText('Key distance'), { target: { value: '2' } })
    fireEvent.change(screen.getByLabelText('States the chord'), { target: { value: 'vague' } })
    expect(
      changes.map(({ families: f, fadeMax, landingMin, keyMax, states }) => [f, fadeMax, landingMin, keyMax, states]),
    ).toEqual([
      [null, 60, 0, null, null],
      [['pair'], 60, 40, null, null],
      [['pair'], 60, 0, 2, null],
      [['pair'], 60, 0, null, 'vague'],
    ])
  })
})

describe('keys and frets', () => {
  const reading = () => {
    at('/desk?chart=c1&bar=2&over=B+dorian')
    const { reading: r } = props().openChart.current ?? {}
    if (!r) throw new Error('nothing is read')
    return r
  }

  it('a keyboard names every key over the chord, in its own pitch, and gives it when pressed', () => {
    const pressed: number[] = []
    render(<Keyboard reading={reading()} low={60} octaves={1} onPress={(p) => pressed.push(p)} />)
    const keys = screen.getAllByRole('button')
    expect(keys.filter((k) => k.tabIndex === 0)).toHaveLength(1)
    for (const key of keys) {
      const pitch = Number(key.dataset.pitch)
      const isIn = reading().overlay.notes.some((n) => n.pc === pitchClass(pitch))
      expect(key.getAttribute('aria-label')?.endsWith('not in it')).toBe(!isIn)
    }
    const d = keys.find((k) => k.dataset.pitch === '62')
    expect(d?.getAttribute('aria-label')).toMatch(/^D, 3, chord/)
    fireEvent.click(d as Element)
    fireEvent.keyDown(d as Element, { key: 'Enter' })
    expect(pressed).toEqual([62, 62])
  })

  it('a neck has the overlay’s notes where its strings have them, for either hand', () => {
    for (const leftHanded of [false, true]) {
      const pressed: number[] = []
      const view = render(
        <Fretboard
          reading={reading()}
          position={{ name: 'whole', from: 0, to: 5 } as never}
          leftHanded={leftHanded}
          picking={false}
          tuning={tuningFrom('E2 A2 D3 G3 B3 E4')}
          onPress={(p) => pressed.push(p)}
        />,
      )
      const notes = screen.getAllByRole('button')
      expect(notes.length).toBeGreaterThan(8)
      for (const note of notes) fireEvent.click(note)
      const set = new Set(reading().overlay.notes.map((n) => n.pc))
      expect(pressed.every((p) => set.has(pitchClass(p)))).toBe(true)
      view.unmount()
    }
  })
})

describe('kept ideas', () => {
  const idea = (id: string, more: object) =>
    server.put('ideas', id, {
      overlay: 'B dorian',
      chord: 'Bb7',
      next: null,
      note: null,
      tags: [],
      chartId: null,
      bar: null,
      beat: null,
      ...more,
    })
  const shown = () => render(<Ideas kept={props().kept} openChart={props().openChart} onOver={null} />)

  it('of this chart come first, in its order, then the others; each goes to its place', () => {
    const rows = [
      idea('late', { chartId: 'c1', bar: 3, beat: 1, chord: 'Ebmaj7', overlay: 'F major' }),
      idea('early', { chartId: 'c1', bar: 2, beat: 1 }),
      idea('loose', { overlay: 'Gb lydian' }),
    ]
    act(() => adoptRows('ideas', rows as never))
    shown()
    const items = screen.getAllByRole('listitem').map((i) => i.textContent ?? '')
    expect(items.map((i) => /(B dorian|F major|F|G♭ lydian)/.exec(i)?.[1])).toEqual(['B dorian', 'F', 'G♭ lydian'])
    expect(items[0]).toContain('in bar 2')
    fireEvent.click(within(screen.getAllByRole('listitem')[1] as HTMLElement).getAllByRole('button')[0] as HTMLElement)
    expect($address.get()).toMatchObject({ bar: 3, beat: 1, over: 'F major', sketch: null })
    fireEvent.click(within(screen.getAllByRole('listitem')[2] as HTMLElement).getAllByRole('button')[0] as HTMLElement)
    expect($address.get()?.sketch).toBe('| Bb7 |')
  })

  it('one is removed, and comes back by undo', async () => {
    const view = shown()
    fireEvent.click(screen.getByRole('button', { name: 'Remove G♭ lydian over B♭7' }))
    await waitFor(() => expect(server.rows.has('ideas/loose')).toBe(false))
    view.rerender(<Ideas kept={props().kept} openChart={props().openChart} onOver={null} />)
    expect(screen.getAllByRole('listitem')).toHaveLength(2)
    await act(() => undoLast())
    view.rerender(<Ideas kept={props().kept} openChart={props().openChart} onOver={null} />)
    expect(screen.getAllByRole('listitem')).toHaveLength(3)
  })

  it('one that no longer reads is passed over, and the rest stand', () => {
    act(() => adoptRows('ideas', [idea('odd', { overlay: 'polka' }) as never]))
    shown()
    expect(screen.getAllByRole('listitem')).toHaveLength(3)
  })
})

describe('no chart to show', () => {
  const shown = (change: object) =>
    render(
      <NoChart
        kept={{ ...props().kept, ...change }}
        openChart={{ ...props().openChart, chart: null, chartError: null }}
      />,
    )

  it.each([
    ['it is being opened', { chart: null, loading: true }, 'status', 'Opening the chart'],
    ['it could not be', { chart: null, failed: 'The program is not answering.' }, 'alert', 'could not be opened'],
    ['it is gone', { chart: null, missing: true }, 'alert', 'not here any more'],
  ])('%s', (_, change, role, words) => {
    shown(change)
    expect(screen.getByRole(role).textContent).toContain(words)
  })

  it('a text that does not read says where, and the chart can be mended or removed', () => {
    const error = { code: 'unknown_quality', at: 2, found: 'Hm7', expected: ['a chord'] } as never
    render(<NoChart kept={props().kept} openChart={{ ...props().openChart, chart: null, chartError: error }} />)
    expect(screen.getByRole('alert').textContent).toContain('At sign 3: “Hm7”')
    fireEvent.click(screen.getByRole('button', { name: 'Mend its text' }))
    expect($address.get()?.view).toBe('charts')
  })
})
