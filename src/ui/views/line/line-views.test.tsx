// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { analyseLine, verdictOf } from '../../../core/index.ts'
import { $address } from '../../state/address/address.ts'
import type { KeptNote, LineRow } from '../../state/kept/row-types.ts'
import { $rows, adoptRows } from '../../state/kept/rows.ts'
import { clearWriting, setBeats } from '../../state/line/line-editing.ts'
import { $lineAnalysis, lineAsk } from '../../state/line/lines.ts'
import { $verdict } from '../../state/line/verdict.ts'
import { undoLast } from '../../state/shell/undoing.ts'
import type { StandIn } from '../../state/testing/server.ts'
import { at, props, startPage } from '../../testing/page.ts'
import { LineHead } from './LineHead.tsx'
import { NotePanel } from './NotePanel.tsx'
import { PlacementPanel } from './PlacementPanel.tsx'
import { TablePanel } from './TablePanel.tsx'
import { Verdict } from './Verdict.tsx'
import { WriteBar } from './WriteBar.tsx'

let server: StandIn
let count = 0
let id = ''
const row = (): LineRow => {
  const found = $rows.lines.get()[id]?.row
  if (!found) throw new Error('no line')
  return found
}
const notes = () => (row().line as { readonly notes: readonly KeptNote[] }).notes
const pitches = () => notes().map((n) => n.pitch)
const begin = (kept: readonly KeptNote[], more: Partial<LineRow> = {}): void => {
  id = `l${++count}`
  const fields = { name: 'Wake', chartId: 'c1', text: null, tags: [], disputed: null, played: null, routeId: null }
  const line = server.put('lines', id, { ...fields, line: { notes: kept }, ...more })
  act(() => adoptRows('lines', [line as never]))
  at(`/line?chart=c1&line=${id}&write=on`)
}
const analysis = () => {
  const ask = lineAsk(row(), notes(), props().kept)
  const found = ask && analyseLine(ask)
  if (!found) throw new Error('nothing to analyse')
  $lineAnalysis.set(found)
  return found
}

beforeAll(() => {
  server = startPage('| Dm7 | G7 | Cmaj7 | % |')
})
beforeEach(() => {
  clearWriting()
  setBeats(0.5)
  begin([
    { at: 0, for: 480, pitch: 62 },
    { at: 480, for: 480, pitch: 65 },
  ])
})
afterEach(cleanup)

describe('writing a line', () => {
  const field = () => screen.getByLabelText<HTMLInputElement>('Degrees')
  const type = (text: string) => {
    fireEvent.change(field(), { target: { value: text } })
    fireEvent.keyDown(field(), { key: 'Enter' })
  }

  it('by degrees: each goes in after the note in view, and the field is empty again', () => {
    render(<WriteBar />)
    at(`/line?chart=c1&line=${id}&note=2`)
    type('5 b7')
    expect(pitches()).toEqual([62, 65, 69, 72])
    expect(field().value).toBe('')
  })

  it('what is not understood stays in the field, with what is wrong under it', () => {
    render(<WriteBar />)
    type('5 harbour')
    expect(screen.getByRole('alert').textContent).toContain('“harbour” is not understood')
    expect([field().value, pitches()]).toEqual(['5 harbour', [62, 65]])
  })

  it.each([
    ['ArrowUp', {}, [63, 65]],
    ['ArrowDown', {}, [61, 65]],
    ['ArrowUp', { shiftKey: true }, [74, 65]],
    ['Backspace', {}, [65]],
  ])('the empty field moves the note in view: %s %j', (key, held, expected) => {
    render(<WriteBar />)
    fireEvent.keyDown(field(), { key, ...held })
    expect(pitches()).toEqual(expected)
  })

  it('the empty field walks, and one that holds something does not', () => {
    analysis()
    render(<WriteBar />)
    fireEvent.keyDown(field(), { key: 'ArrowRight' })
    expect($address.get()?.note).toBe(1)
    fireEvent.change(field(), { target: { value: '5' } })
    fireEvent.keyDown(field(), { key: 'ArrowLeft' })
    expect($address.get()?.note).toBe(1)
  })

  it('presses of one button close together are one thing to undo; the whole line is another', async () => {
    render(<WriteBar />)
    const up = screen.getByRole('button', { name: 'A half step up (↑)' })
    for (let i = 0; i < 3; i++) fireEvent.click(up)
    fireEvent.click(screen.getByRole('button', { name: 'The whole line a half step up' }))
    expect(pitches()).toEqual([66, 66])
    await waitFor(() => expect($rows.lines.get()[id]?.state).toBe('kept'))
    await act(() => undoLast())
    expect(pitches()).toEqual([65, 65])
    await act(() => undoLast())
    expect(pitches()).toEqual([62, 65])
  })

  it('the length that is written is chosen', () => {
    render(<WriteBar />)
    fireEvent.change(screen.getByLabelText('Length of the next note'), { target: { value: '1' } })
    at(`/line?chart=c1&line=${id}&note=2`)
    type('5')
    expect(notes().at(-1)).toMatchObject({ at: 960, for: 960 })
  })
})

describe('the head of the line view', () => {
  const shown = () => {
    const { openChart } = props()
    if (!openChart.chart) throw new Error('no chart')
    return render(
      <LineHead {...props()} chart={openChart.chart} rows={[row()]} row={row()} lineAnalysis={analysis()} />,
    )
  }

  it('a line is renamed by leaving the field; an empty name is none', async () => {
    shown()
    const name = screen.getByLabelText('Name of the line')
    fireEvent.change(name, { target: { value: 'Bow wave' } })
    fireEvent.blur(name)
    await waitFor(() => expect(server.rows.get(`lines/${id}`)?.name).toBe('Bow wave'))
    fireEvent.change(name, { target: { value: '  ' } })
    fireEvent.blur(name)
    expect(row().name).toBe('Bow wave')
  })

  it('offers each format, and removes the line, which comes back by undo', async () => {
    shown()
    for (const [as, name] of [
      ['musicxml', 'MusicXML'],
      ['midi', 'MIDI'],
      ['abc', 'ABC'],
      ['csv', 'table'],
    ])
      expect(screen.getByText(name as string, { selector: 'a' }).getAttribute('href')).toContain(
        `/lines/${id}/export?as=${as}`,
      )
    const band = screen.getByText('MIDI with the band').getAttribute('href')
    expect(new URL(band ?? '', 'http://localhost').searchParams.get('school')).toBe(
      JSON.stringify(props().openChart.settings.school),
    )
    fireEvent.click(screen.getByText('Remove'))
    await waitFor(() => expect(server.rows.has(`lines/${id}`)).toBe(false))
    await act(() => undoLast())
    expect(row().name).toBe('Wake')
  })

  it('a new line begins over the open chart, and is in view', () => {
    shown()
    fireEvent.click(screen.getByRole('button', { name: 'New line' }))
    const made = $rows.lines.get()[$address.get()?.line ?? '']?.row
    expect(made).toMatchObject({ chartId: 'c1', line: { notes: [] } })
    expect($address.get()?.write).toBe(true)
  })
})

describe('beside the verdict', () => {
  const panel = () => {
    const { openChart } = props()
    return { lineAnalysis: analysis(), row: row(), notes: notes(), openChart, current: 0 }
  }

  it('the note in view is told by degree, role and fade; a piece is kept as an idea', async () => {
    begin([62, 65, 69, 72, 76, 72, 69, 65].map((pitch, i) => ({ at: i * 480, for: 480, pitch })))
    render(<NotePanel {...panel()} />)
    expect(screen.getByRole('heading').textContent).toContain('note 1, bar 1, beat 1')
    expect(document.body.textContent).toContain('The 1 over Dm7: chord')
    fireEvent.click(screen.getByRole('button', { name: /^Keep .* as an idea$/ }))
    await waitFor(() => {
      const ideas = [...server.rows.entries()].filter(([key]) => key.startsWith('ideas/'))
      expect(ideas.map(([, i]) => i)).toMatchObject([{ chord: 'Dm7', chartId: 'c1', bar: 1, beat: 1 }])
    })
  })

  it('the table has a row for each note', () => {
    render(<TablePanel lineAnalysis={panel().lineAnalysis} current={1} />)
    expect(screen.getAllByRole('row')).toHaveLength(3)
  })

  it('a line is moved by bars and beats, not out over the beginning', () => {
    const { rerender } = render(<PlacementPanel {...panel()} />)
    fireEvent.change(screen.getByLabelText('Begins in'), { target: { value: '2' } })
    expect(notes().map((n) => n.at)).toEqual([3840, 4320])
    rerender(<PlacementPanel {...panel()} />)
    fireEvent.click(screen.getByRole('button', { name: '← beat' }))
    expect(notes()[0]?.at).toBe(2880)
    fireEvent.change(screen.getByLabelText('of chorus'), { target: { value: '2' } })
    expect(notes()[0]?.at).toBeGreaterThan(3840 * 4)
  })

  it('a sentence is shown, disputed, and laid beside another school', async () => {
    begin([{ at: 7680, for: 3840, pitch: 65 }])
    const { openChart, kept } = props()
    $verdict.set(verdictOf(analysis().audit, openChart.settings.school))
    const view = render(<Verdict row={row()} notes={notes()} kept={kept} heard={analysis().audit.notes} />)
    const said = () => screen.getByRole('list', { name: 'Your school' })
    expect(said().textContent).toContain('F (the 11 of Cmaj7)')
    fireEvent.click(screen.getAllByRole('button', { name: /^Dispute: / })[0] as HTMLElement)
    await waitFor(() => expect(server.rows.get(`lines/${id}`)?.disputed).toHaveLength(1))
    view.rerender(<Verdict row={row()} notes={notes()} kept={props().kept} heard={analysis().audit.notes} />)
    expect(said().textContent).toContain('You: not so.')
    fireEvent.change(screen.getByLabelText('Beside it'), { target: { value: 'a modal player' } })
    expect(screen.getByRole('list', { name: 'a modal player' })).toBeDefined()
  })
})
