// @vitest-environment happy-dom
import { act, render, screen, waitFor } from '@testing-library/react'
import { expect, it, vi } from 'vitest'
import { midi, placeOf, readChord, readOver, readOverlay } from '../../core/index.ts'
import { Staff, type StaffEntry } from './Staff.tsx'

/** The library draws on a canvas of its own; here each note stands 40 px after the one before, when it is let. */
const waiting: (() => void)[] = []
const draw = async (): Promise<void> => {
  await waitFor(() => expect(waiting).toHaveLength(1))
  await act(async () => waiting.pop()?.())
}
vi.mock('./notation.ts', () => ({
  notationFonts: () => new Promise<void>((go) => void waiting.push(go)),
  drawStave: (_: unknown, pitches: readonly unknown[]) => ({
    ...{ xs: pitches.map((_, i) => 40 * i), middle: 40, space: 10, height: 80 },
  }),
}))
vi.mock('./size.ts', () => ({ useSize: () => [{ current: null }, { w: 600, h: 200 }] }))

const entriesOf = (overlay: string): readonly StaffEntry[] => {
  const [laid, chord] = [readOverlay(overlay), readChord('G7')]
  if (!laid.ok || !chord.ok) throw new Error(overlay)
  return readOver(laid.value, placeOf(chord.value, null)).notes.map((note, i) => ({
    ...{ pitches: [{ note: note.note, octave: 4, pitch: midi(60 + i) }], note },
    fill: i % 2 === 0 ? 'solid' : 'hollow',
  }))
}

it('shows the tabs of the stave that is drawn until the next one is', async () => {
  const staff = (overlay: string) => <Staff entries={entriesOf(overlay)} clef="treble" name="Staff" />
  const tabs = (): number => screen.queryAllByRole('button').length
  const threads = (): string => [...document.querySelectorAll('polyline')].map((p) => p.getAttribute('points')).join()
  const { rerender } = render(staff('Ab triad'))
  await draw()
  await waitFor(() => expect(tabs()).toBe(3))
  rerender(staff('Ab whole-half'))
  expect([tabs(), threads()]).toEqual([3, expect.not.stringContaining('undefined')])
  await draw()
  await waitFor(() => expect(tabs()).toBe(8))
  expect(threads()).not.toContain('undefined')
})
