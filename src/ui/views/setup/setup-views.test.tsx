// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import {
  DEFAULT_SCHOOL,
  DEFAULT_WEIGHTS,
  INSTRUMENTS,
  SCHOOL_CHOICES,
  type SchoolSetting,
} from '../../../core/index.ts'
import type { StandIn } from '../../state/testing/server.ts'
import { at, props, startPage } from '../../testing/page.ts'
import { Ears } from './Ears.tsx'
import { Schools } from './Schools.tsx'
import SetupView from './SetupView.tsx'
import { Strings } from './Strings.tsx'

let server: StandIn
const kept = (name: string) => [...server.rows.values()].find((r) => r.name === name)?.value
const settings = () => props().openChart.settings

beforeAll(() => {
  server = startPage('| Dm7 | G7 | Cmaj7 |')
})
beforeEach(() => at('/set-up?chart=c1&bar=2'))
afterEach(() => {
  cleanup()
  vi.useRealTimers()
})

describe('settings', () => {
  it.each([
    ['Instrument', 'instrument', 'bb'],
    ['Clef', 'clef', 'bass'],
    ['Pentatonics of the same notes', 'naming', 'as major'],
    ['Roots on black keys that nobody typed', 'direction', 'sharps'],
    ['Look', 'look', 'club', 'look'],
    ['Keys', 'keys', 'off', 'look'],
  ])(
    '%s is kept as it is picked, and everything shows it at once',
    async (label, name, value, section = 'instrument') => {
      at(`/set-up?chart=c1&bar=2&section=${section}`)
      render(<SetupView {...props()} />)
      fireEvent.change(screen.getByLabelText(label), { target: { value } })
      expect(settings()).toMatchObject({ [name]: value })
      await waitFor(() => expect(kept(name)).toBe(value))
    },
  )

  it('another instrument moves what is written, and nothing that is kept', () => {
    const { openChart, address } = props()
    expect(openChart.instrument.id).toBe('bb')
    expect(openChart.spots[0]?.spot.chord.symbol).toBe('Em7')
    expect([openChart.concert?.chord.symbol, address.chart]).toEqual(['G7', 'c1'])
  })

  it('every instrument can be chosen, and the cautions are there', () => {
    render(<SetupView {...props()} />)
    const options = screen.getByLabelText('Instrument').querySelectorAll('option')
    expect(options).toHaveLength(INSTRUMENTS.length)
    cleanup()
    at('/set-up?chart=c1&section=care')
    render(<SetupView {...props()} />)
    const care = screen.getByRole('region', { name: 'Take care' }).textContent ?? ''
    for (const word of ['Warm up', 'break', 'pain or tingling', 'clinician', 'level low']) expect(care).toContain(word)
  })
})

describe('strings', () => {
  it('an own tuning is used only when it reads, and says what does not', async () => {
    render(<Strings openChart={props().openChart} />)
    fireEvent.change(screen.getByLabelText('Tuning'), { target: { value: 'own' } })
    const own = screen.getByLabelText('Open strings from the lowest, with octaves')
    fireEvent.change(own, { target: { value: 'D2 A2 Q3' } })
    expect(screen.getByRole('alert').textContent).toContain('“Q3” is no open string')
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Use it' }).disabled).toBe(true)
    fireEvent.change(own, { target: { value: 'D2 A2 D3 G3' } })
    fireEvent.click(screen.getByRole('button', { name: 'Use it' }))
    await waitFor(() => expect(kept('tuning')).toBe('D2 A2 D3 G3'))
    fireEvent.click(screen.getByLabelText('Left-handed'))
    await waitFor(() => expect(kept('leftHanded')).toBe(true))
  })
})

describe('schools', () => {
  it('every choice of every school is offered, with why; the usual is one press away', async () => {
    const view = render(<Schools openChart={props().openChart} />)
    for (const s of Object.keys(SCHOOL_CHOICES) as SchoolSetting[])
      expect(screen.getByLabelText(SCHOOL_CHOICES[s].title).querySelectorAll('option')).toHaveLength(
        SCHOOL_CHOICES[s].choices.length,
      )
    const [first] = Object.keys(SCHOOL_CHOICES) as SchoolSetting[]
    if (!first) throw new Error('no school')
    const other = SCHOOL_CHOICES[first].choices.find((c) => c !== DEFAULT_SCHOOL[first]) as string
    fireEvent.change(screen.getByLabelText(SCHOOL_CHOICES[first].title), { target: { value: other } })
    await waitFor(() => expect(kept('school')).toMatchObject({ [first]: other }))
    view.rerender(<Schools openChart={props().openChart} />)
    fireEvent.click(screen.getByRole('button', { name: 'Back to the usual school' }))
    await waitFor(() => expect(kept('school')).toEqual(DEFAULT_SCHOOL))
  })
})

describe('my ears', () => {
  it('while a slider moves the fade answers; what is kept follows when it rests', async () => {
    at('/set-up?chart=c1&bar=2&over=Db+major+pentatonic')
    render(<Ears openChart={props().openChart} />)
    const shown = () => Number(/fade (\d+)/.exec(screen.getByText(/: fade/).textContent ?? '')?.[1])
    const before = shown()
    fireEvent.change(screen.getByLabelText('Outside'), { target: { value: '10' } })
    fireEvent.change(screen.getByLabelText('An altered ♭9'), { target: { value: '5' } })
    expect(shown()).toBeLessThan(before)
    expect(kept('weights')).toBeUndefined()
    await waitFor(() => expect(kept('weights')).toMatchObject({ altered: { b9: 5 } }), { timeout: 3000 })
    cleanup()
    render(<Ears openChart={props().openChart} />)
    fireEvent.click(screen.getByRole('button', { name: 'Back to the usual ears' }))
    await waitFor(() => expect(kept('weights')).toEqual(DEFAULT_WEIGHTS))
  })
})
