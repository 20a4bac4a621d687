// @vitest-environment happy-dom
import { beforeAll, expect, it } from 'vitest'
import type { RouteRow } from '../../state/kept/row-types.ts'
import { adoptRow } from '../../state/kept/rows.ts'
import { at, openChart, startPage } from '../../testing/page.ts'
import { runsFrom } from './pair-runs.ts'

const runs = (bars = 2) =>
  runsFrom(openChart(), bars).map((r) => [r.reading.place.chord.symbol, r.reading.overlay.name, r.count])

beforeAll(() => {
  const server = startPage('| C7 | % | Ab7 | F7 | Bbmaj7 |')
  const laid = (bar: number, overlay: string) => ({ bar, beat: 1, beats: 4, overlay })
  const steps = [
    laid(1, 'D & Bb'),
    laid(2, 'D & Bb'),
    laid(3, 'Bb & F#'),
    laid(4, 'Eb major pentatonic'),
    laid(5, 'C & D'),
  ]
  const row = { name: 'Pumps', note: null, chartId: 'c1', chartVersion: 1, rules: null, inHand: true, steps }
  adoptRow('routes', server.put('routes', 'r1', row) as unknown as RouteRow)
})

it('goes on from pair to pair, a chord that is held as one, until a chord has none', () => {
  at('/pairs?chart=c1&bar=1')
  // Sixteen eighths are five triads, and the twenty-four of three bars are eight.
  expect(runs()).toEqual([
    ['C7', 'D & Bb', 5],
    ['Ab7', 'Bb & F#', 3],
  ])
})
it('plays a pair that stands alone for so many bars, and nothing where no pair lies', () => {
  at('/pairs?chart=c1&bar=5')
  expect(runs(2)).toEqual([['Bbmaj7', 'C & D', 5]])
  expect(runs(4)).toEqual([['Bbmaj7', 'C & D', 11]])
  at('/pairs?chart=c1&bar=4')
  expect(runs()).toEqual([])
})
