import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { Overlay } from '../material/overlay.ts'
import { membersOf } from '../pitch/pcset.ts'
import { readOver } from '../reading/read.ts'
import { directionBetween, motionBetween } from '../reading/seam.ts'
import { chartOfWords, planned } from '../testing/routes.ts'
import { overlayNamed } from '../testing/words.ts'
import { arcOf } from './arcs.ts'
import type { Route, RouteStep } from './plan.ts'
import { motionName, readMotion } from './rules.ts'
import type { Slot } from './slots.ts'

const demo = (name: string): string => readFileSync(`demo/charts/${name}.txt`, 'utf8')
const FORM = chartOfWords(demo('1-pier-eleven'), { holdsAsOne: true })
const BLUES = chartOfWords(demo('2-low-water'))

const wishes = ({ chart, slots }: typeof FORM) => ({
  arc: arcOf('with the cadences', chart, slots).map((w) => w.fade),
  families: ['triad', 'seventh', 'pentatonic', 'symmetric'] as const,
  rubsFrom: 55,
})
const motionOf = (text: string) => readMotion(text) ?? { kind: 'free' as const }

const pcs = (o: Overlay): readonly number[] => membersOf(o.set)
const movedBy = (o: Overlay, n: number): readonly number[] =>
  pcs(o)
    .map((pc) => (pc + n + 12) % 12)
    .sort((a, b) => a - b)
const same = (a: readonly number[], b: readonly number[]): boolean => a.join() === b.join()
const changed = (a: Overlay, b: Overlay): number => pcs(b).filter((pc) => !pcs(a).includes(pc)).length

/** Root motion by the words of the theory page. */
const bass = (from: Slot, to: Slot): 'falls' | 'rises' | 'either' | 'stays' => {
  const up = (to.chord.root.pc - from.chord.root.pc + 12) % 12
  return up === 0 ? 'stays' : up === 6 ? 'either' : up === 5 || up > 6 ? 'falls' : 'rises'
}
const seams = (route: Route): readonly (readonly [RouteStep, RouteStep])[] =>
  route.steps
    .slice(1)
    .map((s, i) => [route.steps[i] as RouteStep, s] as const)
    .filter(([, s]) => !s.slot.carries)
const inCadence = ([a, b]: readonly [RouteStep, RouteStep]): boolean =>
  a.slot.cadence !== null && a.slot.cadence === b.slot.cadence && a.slot.chord.symbol !== b.slot.chord.symbol

describe('motion rules on the 32-bar form', () => {
  const shapes = [1, -1, 3].map((n) => [`${n > 0 ? '+' : ''}${n}`, n] as const)
  it.each(shapes)('%s: one shape moves in every cadence, and is heard as out and home again', (text, n) => {
    const routes = planned(FORM.slots, { ...wishes(FORM), motion: motionOf(text) }, 3)
    expect(routes).toHaveLength(3)
    for (const route of routes) {
      const ruled = seams(route).filter(inCadence)
      expect(ruled.length).toBeGreaterThanOrEqual(10)
      for (const [a, b] of ruled)
        expect(same(movedBy(a.overlay, n), pcs(b.overlay)), `${a.overlay.name} ${b.overlay.name}`).toBe(true)
      for (const s of route.steps)
        if (s.fade < 55) expect(readOver(s.overlay, s.slot.place).notes.every((x) => x.rub === null)).toBe(true)
    }
  })
  it('any constant is the best of all constants', () => {
    const one = (text: string) =>
      planned(FORM.slots, { ...wishes(FORM), motion: motionOf(text) }, 1)[0]?.total ?? Infinity
    const each = ['+1', '-1', '+2', '-2', '+3', '-3', '+4', '-4', '+5', '-5', '+6'].map(one)
    const [best] = planned(FORM.slots, { ...wishes(FORM), motion: motionOf('constant') }, 1)
    expect(best?.total).toBe(Math.min(...each))
    expect(best && one(motionName(best.motion))).toBe(best?.total)
  })
  it('one note changes at each chord of a cadence', () => {
    const [route] = planned(FORM.slots, { ...wishes(FORM), motion: motionOf('one-note') }, 1)
    const ruled = route ? seams(route).filter(inCadence) : []
    expect(ruled.length).toBeGreaterThanOrEqual(10)
    for (const [a, b] of ruled)
      expect([changed(a.overlay, b.overlay), pcs(a.overlay).length - pcs(b.overlay).length]).toEqual([1, 0])
  })
  it.each(['cadence', 'throughout'] as const)('against the bass, %s: overlays climb where roots fall', (scope) => {
    const [route] = planned(FORM.slots, { ...wishes(FORM), motion: motionOf('contrary'), scope }, 1)
    const ruled = route ? seams(route).filter((s) => scope === 'throughout' || inCadence(s)) : []
    expect(ruled.length).toBeGreaterThanOrEqual(10)
    for (const [a, b] of ruled) {
      const way = bass(a.slot, b.slot)
      if (way === 'falls')
        expect(directionBetween(a.overlay.set, b.overlay.set), `${a.overlay.name} ${b.overlay.name}`).toBe(1)
      if (way === 'rises')
        expect(directionBetween(a.overlay.set, b.overlay.set), `${a.overlay.name} ${b.overlay.name}`).toBe(-1)
    }
  })
  it('fewest notes moving moves fewer than the free route', () => {
    const moving = (kind: 'free' | 'fewest'): number => {
      const [route] = planned(FORM.slots, { ...wishes(FORM), motion: { kind }, scope: 'throughout' }, 1)
      return route ? seams(route).reduce((sum, [a, b]) => sum + changed(a.overlay, b.overlay), 0) : Infinity
    }
    expect(moving('fewest')).toBeLessThan(moving('free'))
  })
  it('each series of devices comes once, its best first', () => {
    const series = (r: Route): string =>
      r.steps
        .filter((s) => s.fade >= 25 && !s.slot.carries)
        .map((s) => `${s.device.formula} ${s.device.up} ${s.slot.index}`)
        .join()
    const routes = planned(FORM.slots, wishes(FORM), 20, true)
    const best = planned(FORM.slots, wishes(FORM), 1)
    expect(new Set(routes.map(series)).size).toBeGreaterThan(10)
    expect(routes[0]?.total).toBe(best[0]?.total)
    expect(routes.map((r) => r.total)).toEqual(routes.map((r) => r.total).sort((a, b) => a - b))
  })
})

describe('the one-note chain on the minor blues', () => {
  it('changes one note of a pentatonic at every change, all twelve bars', () => {
    const rules = {
      ...wishes(BLUES),
      families: ['pentatonic'] as const,
      motion: motionOf('one-note'),
      scope: 'throughout' as const,
    }
    const [route] = planned(BLUES.slots, rules, 1)
    const all = route ? seams(route) : []
    expect(all).toHaveLength(BLUES.slots.length - 1)
    for (const [a, b] of all) expect([pcs(a.overlay).length, changed(a.overlay, b.overlay)]).toEqual([5, 1])
  })
})

describe('a long chart', () => {
  const chords = ['Dm7', 'G7', 'Ebm7', 'Ab7', 'C#m7b5', 'F#7b9', 'Bm6', 'Bbmaj7', 'A7alt', 'Dmaj7', 'F7#11', 'Cm9']
  const text = Array.from({ length: 64 }, (_, i) => `${chords[(i * 5) % 12]} ${chords[(i * 7 + 3) % 12]}`).join(' | ')
  it('64 bars, two chords a bar: twenty routes, every term worked out again from the readings', () => {
    const { slots } = chartOfWords(`| ${text} |`)
    const arc = slots.map((_, i) => (i * 13) % 60)
    const routes = planned(slots, { arc }, 20)
    expect([slots.length, routes.length]).toEqual([128, 20])
    for (const route of routes) {
      let [arcMiss, landingMiss, motion, repeats, last] = [0, 0, 0, 0, '']
      for (const [i, step] of route.steps.entries()) {
        const { fade, landing } = readOver(step.overlay, step.slot.place)
        arcMiss += Math.abs(fade - (arc[i] ?? 0))
        landingMiss += Math.round(((100 - (landing ?? 100)) * fade) / 200)
        const before = route.steps[i - 1]
        if (before) motion += Math.round(10 * motionBetween(before.overlay.set, step.overlay.set))
        const device = `${step.overlay.material?.name} ${(step.overlay.root.pc - step.slot.chord.root.pc + 12) % 12}`
        if (fade >= 25) {
          const goesOn = before?.slot.chord.symbol === step.slot.chord.symbol && before.overlay.set === step.overlay.set
          if (device === last && !goesOn) repeats += 12
          last = device
        }
      }
      expect(route.terms).toEqual({ arcMiss, motion, landingMiss, repeats, rubs: 0 })
      expect(route.total).toBe(arcMiss + motion + landingMiss + repeats)
    }
    expect(routes.map((r) => r.total)).toEqual(routes.map((r) => r.total).sort((a, b) => a - b))
  })
})

describe('one chord of eight bars', () => {
  const eight = `| Dm7 | ${Array(7).fill('%').join(' | ')} |`
  it('carries two overlays: four bars out, four in', () => {
    const joins = [2, 3, 4, 6, 7, 8].map((bar) => ({ bar, beat: 1 }))
    const { slots } = chartOfWords(eight, { joins })
    const arc = [60, 60, 60, 60, 10, 10, 10, 10]
    const [route] = planned(slots, { arc }, 1)
    const names = route?.steps.map((s) => s.overlay.name) ?? []
    expect(new Set(names.slice(0, 4)).size).toBe(1)
    expect(new Set(names.slice(4)).size).toBe(1)
    expect(names[0]).not.toBe(names[4])
    expect(route?.steps.map((s) => s.fade > 40)).toEqual([true, true, true, true, false, false, false, false])
  })
  it('is cut at any beat, and locks hold through the bars they are carried over', () => {
    const { slots } = chartOfWords(eight, { holdsAsOne: true, cuts: [{ bar: 4, beat: 1, at: 3 }] })
    expect(slots.map((s) => [s.bar, s.beat, s.beats, s.carries]).slice(2, 6)).toEqual([
      [3, 1, 4, true],
      [4, 1, 2, true],
      [4, 3, 2, false],
      [5, 1, 4, true],
    ])
    const [route] = planned(slots, { locks: [{ step: 0, overlay: overlayNamed('Ebm') }], arc: slots.map(() => 20) }, 1)
    expect(route?.steps.slice(0, 4).map((s) => s.overlay.name)).toEqual(['Ebm', 'Ebm', 'Ebm', 'Ebm'])
    expect(route?.steps[4]?.overlay.name).not.toBe('Ebm')
  })
})
