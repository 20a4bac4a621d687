// @vitest-environment happy-dom
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { sheetLines } from '../../figures/ChartSheet.tsx'
import { at, openChart, props, startPage } from '../../testing/page.ts'
import { beatsLeft } from '../../views/stand/BeatsLeft.tsx'
import { $address } from '../address/address.ts'
import { changeWords } from '../kept/kinds.ts'
import type { RouteRow } from '../kept/row-types.ts'
import { $rows } from '../kept/rows.ts'
import { $notice } from '../page/notices.ts'
import { sheetBars } from '../route/route-sheet.ts'
import type { StandIn } from '../testing/server.ts'
import { layHere, layNothing, putAway, takeChain, takeInHand } from './in-hand.ts'

let server: StandIn
const routes = () =>
  [...server.rows].filter(([key]) => key.startsWith('routes/')).map(([, row]) => row as unknown as RouteRow)
const over = (index: number) => openChart().spots[index]?.reading?.overlay.name
const by = () => openChart().spots.map((s) => s.by)
const kept = (id: string) => $rows.routes.get()[id]?.row

beforeAll(() => {
  // An alto reads a written sixth above what sounds.
  server = startPage('| Dm7 G7 | Cmaj7 | % |', { instrument: 'eb' })
})
beforeEach(() => at('/desk?chart=c1'))

describe('the route in hand', () => {
  it('is made by the first thing laid, in concert pitch, for that chord alone; the rest shows its home', async () => {
    at('/desk?chart=c1&bar=1&beat=3&over=Db+major+pentatonic')
    layHere()
    await vi.waitFor(() => expect(routes()).toHaveLength(1))
    expect(routes()[0]).toMatchObject({
      chartId: 'c1',
      inHand: true,
      steps: [{ bar: 1, beat: 3, beats: 2, chord: 'G7', overlay: 'Db major pentatonic', byHand: true }],
    })
    expect($address.get()?.over).toBeNull()
    expect(by()).toEqual(['home', 'route', 'home', 'home'])
    expect(over(1)).toBe('Bb major pentatonic')
    expect($notice.get()?.text).toContain('lies over E7 in bar 1')
  })
  it('takes what is laid next, and lets go of what is taken away', async () => {
    at('/desk?chart=c1&bar=1&beat=1&over=F')
    layHere()
    await vi.waitFor(() => expect(routes()[0]?.steps).toHaveLength(2))
    at('/desk?chart=c1&bar=1&beat=1')
    expect(over(0)).toBe('D')
    layNothing()
    await vi.waitFor(() => expect(routes()[0]?.steps).toHaveLength(1))
    expect(by()).toEqual(['home', 'route', 'home', 'home'])
    at('/desk?chart=c1&bar=1&beat=3&over=Eb')
    expect(by()[1]).toBe('overlay')
    layNothing()
    expect(by()[1]).toBe('route')
    at('/desk?chart=c1&bar=2')
    layNothing()
    await vi.waitFor(() => expect($notice.get()?.text).toBe('Nothing lies here.'))
  })
  it('takes a whole chain bar by bar, which is told by its bars when it is taken back', async () => {
    const before = kept(routes()[0]?.id ?? '') as RouteRow
    await takeChain('Climbing', [
      { bar: 2, beat: 1, beats: 4, chord: 'Cmaj7', overlay: 'G' },
      { bar: 3, beat: 1, beats: 4, chord: 'Cmaj7', overlay: 'G', carries: true },
    ])
    await vi.waitFor(() => expect(routes()[0]?.steps).toHaveLength(3))
    expect(by()).toEqual(['home', 'route', 'route', 'route'])
    const after = kept(before.id) as RouteRow
    expect(changeWords('routes', before, after)).toBe('the route in bars 2–3')
    expect(changeWords('routes', after, { ...after, name: 'Anew' })).toBe('the name of Anew')
    expect(changeWords('routes', after, { ...after, inHand: false })).toBe('whether Laid by hand is in hand')
  })
  it('is swapped for another, and put away', async () => {
    const other = server.put('routes', 'r2', {
      name: 'Plain',
      note: null,
      chartId: 'c1',
      chartVersion: 1,
      rules: null,
      inHand: false,
      steps: [{ bar: 1, beat: 1, beats: 2, chord: 'Dm7', overlay: 'C major pentatonic' }],
    })
    const { adoptRow } = await import('../kept/rows.ts')
    adoptRow('routes', other as unknown as RouteRow)
    await takeInHand(other as unknown as RouteRow)
    expect(openChart().inHand).toBe('Plain')
    expect(by()).toEqual(['route', 'home', 'home', 'home'])
    putAway()
    // The stand-in server does not put the first one away: it is in hand again.
    expect(openChart().inHand).not.toBe('Plain')
  })
})

describe('the sheet of a chart', () => {
  it('has each bar with what lies over it, in the pitch of whom it is for; what goes on is not drawn again', async () => {
    const { instrument } = await import('../../../core/index.ts')
    const bars = sheetBars(openChart(), instrument('bb'), null, null)
    expect(bars.map((b) => b.chords.map((c) => [c.symbol, c.reading?.overlay.name ?? null, c.goesOn]))).toEqual([
      [
        ['Em7', null, false],
        ['A7', 'Eb major pentatonic', false],
      ],
      [['Dmaj7', 'A', false]],
      [['Dmaj7', 'A', true]],
    ])
    expect(bars.map((b) => b.metre)).toEqual(['4/4', null, null])
    expect(sheetBars(openChart(), instrument('bb'), null, { from: 2, to: 2 }).map((b) => b.number)).toEqual([2])
    // A staff of five notes takes half a line, three triads a quarter each.
    expect(sheetLines(bars).map((line) => line.map((b) => b.number))).toEqual([[1, 2, 3]])
  })
})

describe('beats left on the stand', () => {
  it('are counted down within the chord in view, and none are told while another sounds', () => {
    at('/stand?chart=c1&bar=1&beat=3')
    const { openChart: now } = props()
    expect([0, 1919].map((tick) => beatsLeft(now, tick))).toEqual([null, null])
    expect([1920, 2000, 2880, 3839].map((tick) => beatsLeft(now, tick))).toEqual([2, 2, 1, 1])
    expect(beatsLeft(now, 3840 * 3 + 1920)).toBe(2)
  })
})
