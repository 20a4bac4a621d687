import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { auditLine } from '../line/audit.ts'
import type { Overlay } from '../material/overlay.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { has } from '../pitch/pcset.ts'
import { pitchNamed } from '../pitch/register.ts'
import { pitchClass } from '../pitch/units.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import { lineOfWords } from '../testing/lines.ts'
import { figureNamed, laidFrom, requestFor, timelineFor } from '../testing/making.ts'
import { soundingAt } from '../time/timeline.ts'
import { type Draft, makeLines } from './make.ts'
import type { MakeRequest } from './request.ts'
import { lineThrough } from './through.ts'
import { varyLine } from './vary.ts'

const drafts = (text: string, asked: Partial<MakeRequest>): readonly Draft[] => {
  const timeline = timelineFor(text)
  const made = makeLines(requestFor(timeline, asked), timeline)
  if (!made.ok) throw new Error(made.error.why)
  return made.value
}
const said = ({ notes }: Draft): string =>
  notes.map((n) => `${n.name.name}${pitchNamed(n.name, n.pitch).octave}`).join(' ')
const TRIPLETS = { value: '1/8t', start: 1, rest: null } as const

describe('a triad pair in eighth-note triplets climbs through its inversions over a major seventh chord', () => {
  it.each([
    ['Cmaj7', 'G & Am', 'G3 B3 D4 A3 C4 E4 B3 D4 G4 C4 E4 A4'],
    ['Abmaj7', 'Eb & Fm', 'Eb3 G3 Bb3 F3 Ab3 C4 G3 Bb3 Eb4 Ab3 C4 F4'],
    ['Emaj7', 'B & C#m', 'B3 D#4 F#4 C#4 E4 G#4 D#4 F#4 B4 E4 G#4 C#5'],
  ])('%s: %s', (chord, pair, line) => {
    const all = drafts(`| ${chord} |`, { plan: laidFrom([[0, pair]]), rhythm: TRIPLETS, range: [51, 84], limit: 40 })
    const found = all.find((d) => said(d) === line)
    expect(found?.line.map((n) => n.at)).toEqual(Array.from({ length: 12 }, (_, i) => i * 320))
    expect(found?.groups.map((g) => g.adds)).toEqual(Array.from({ length: 4 }, () => 'extensions'))
  })
})

describe('every triad of a descending chromatic row is entered from a half step below its fifth', () => {
  it.each([
    ['C7', 'F E Eb D', 'B4 C5 A4 F4 A#4 B4 G#4 E4 A4 Bb4 G4 Eb4 G#4 A4 F#4 D4'],
    ['A7', 'D Db C B', 'G#4 A4 F#4 D4 G4 Ab4 F4 Db4 F#4 G4 E4 C4 F4 F#4 D#4 B3'],
    ['Eb7', 'Ab G Gb F', 'D5 Eb5 C5 Ab4 C#5 D5 B4 G4 C5 Db5 Bb4 Gb4 B4 C5 A4 F4'],
  ])('%s: %s', (chord, row, line) => {
    const plan = laidFrom(row.split(' ').map((name, i) => [2 * i, name] as const))
    const [best] = drafts(`| ${chord} | ${chord} |`, {
      ...{ plan, figure: figureNamed('5 3 1'), approach: 'half below', approachTakes: 'its own place' },
      ...{ path: 'nearest', inversion: 'kept', range: [52, 84] },
    })
    expect(best && said(best)).toBe(line)
    expect(best?.approaches).toEqual([0, 4, 8, 12])
    expect(best?.joins.map((j) => j.how)).toEqual(['half step up', 'half step up', 'half step up'])
  })
})

describe('thirds of a Dorian scale', () => {
  it.each([
    ['Dm7', 'D4 F4 E4 G4 F4 A4 G4 B4'],
    ['Fm7', 'Eb4 G4 F4 Ab4 G4 Bb4 Ab4 C5'],
    ['C#m7', 'C#4 E4 D#4 F#4 E4 G#4 F#4 A#4'],
  ])('%s', (chord, line) => {
    expect(drafts(`| ${chord} |`, { figure: figureNamed('1 3') }).map(said)).toContain(line)
  })
})

describe('a pattern on one pentatonic goes on from the nearest note of the one a half step higher and lands on the 3', () => {
  it.each([
    ['| Dm7 | G7 | Cmaj7 |', 'A Bb', 'A3 C4 D4 E4 G4 E4 D4 C4 Db4 Eb4 F4 Ab4 Bb4 Ab4 F4 Eb4 E4', [50, 86]],
    ['| Fm7 | Bb7 | Ebmaj7 |', 'C Db', 'C4 Eb4 F4 G4 Bb4 G4 F4 Eb4 Fb4 Gb4 Ab4 Cb5 Db5 Cb5 Ab4 Gb4 G4', [53, 89]],
    ['| Bm7 | E7 | Amaj7 |', 'F# G', 'F#3 A3 B3 C#4 E4 C#4 B3 A3 Bb3 C4 D4 F4 G4 F4 D4 C4 C#4', [47, 83]],
  ] as const)('%s', (text, roots, line, range) => {
    const [first, second] = roots.split(' ')
    const [best] = drafts(text, {
      plan: laidFrom([
        [0, `${first} minor pentatonic`],
        [4, `${second} minor pentatonic`],
      ]),
      ...{ figure: figureNamed('1 2 3 4 5 4 3 2'), to: 8 * 960, range },
      landing: { at: 8 * 960, up: 4, how: 'any' },
    })
    expect(best && said(best)).toBe(line)
    expect(best?.notes.at(-1)).toMatchObject({ degree: '3', bar: 3, beat: 1 })
    expect(best?.total).toBe(0)
  })
})

describe('augmented triads fall in whole tones, joined chromatically', () => {
  it.each([
    ['G7', 'C+ Bb+ Ab+ Gb+', 'A5 G#5 E5 C5 B4 Bb4 F#4 D4 Db4 C4 Ab3 E3 B3 Bb3 Gb3 D3', [48, 84]],
    ['E7', 'A+ G+ F+ Eb+', 'F#5 E#5 C#5 A4 Ab4 G4 D#4 B3 Bb3 A3 F3 C#3 Ab3 G3 Eb3 B2', [45, 81]],
    ['Bb7', 'Eb+ Db+ B+ A+', 'C6 B5 G5 Eb5 D5 Db5 A4 F4 E4 D#4 B3 F##3 D4 C#4 A3 E#3', [51, 87]],
  ] as const)('%s: %s', (chord, row, line, range) => {
    const all = drafts(`| ${chord} | ${chord} |`, {
      plan: laidFrom(row.split(' ').map((name, i) => [2 * i, name] as const)),
      ...{ figure: figureNamed('5 3 1'), approach: 'half above', approachTakes: 'its own place' },
      ...{ path: 'nearest', limit: 12, range },
    })
    expect(all.map(said)).toContain(line)
  })
})

describe('a motif moved by half steps through a cadence', () => {
  it.each([
    ['| Dm7 G7 | Cmaj7 |', 'F4 E4 D4 A4', 'F4 E4 D4 A4 E4 Eb4 Db4 Ab4 Eb4 D4 C4 G4'],
    ['| Gm7 C7 | Fmaj7 |', 'Bb4 A4 G4 D5', 'Bb4 A4 G4 D5 A4 Ab4 Gb4 Db5 Ab4 G4 F4 C5'],
    ['| F#m7 B7 | Emaj7 |', 'A4 G#4 F#4 C#5', 'A4 G#4 F#4 C#5 G#4 G4 F4 C5 G4 F#4 E4 B4'],
  ])('%s', (text, motif, whole) => {
    const line = lineOfWords(motif)
    const ground = { timeline: timelineFor(text), weights: DEFAULT_WEIGHTS }
    const [made] = varyLine(line, 0, 3, { by: 'sequence', semitones: -1, steps: null, times: 2 }, ground)
    expect(made?.line.map((n) => n.pitch)).toEqual(lineOfWords(whole).map((n) => n.pitch))
    expect(made?.line.map((n) => n.at)).toEqual(Array.from({ length: 12 }, (_, i) => i * 480))
  })
})

it('an approach takes half of the time before it, so that its target keeps its place', () => {
  const [plain] = drafts('| Dm7 G7 |', { figure: figureNamed('1 3 5 7'), path: 'nearest' })
  const [led] = drafts('| Dm7 G7 |', { figure: figureNamed('1 3 5 7'), path: 'nearest', approach: 'double below' })
  expect(plain?.line.map((n) => n.at)).toEqual([0, 480, 960, 1440, 1920, 2400, 2880, 3360])
  expect(led?.line.map((n) => [n.at, n.for])).toEqual([
    [0, 480],
    [480, 480],
    [960, 480],
    ...[1440, 1680, 1800].map((at, i) => [at, i === 0 ? 240 : 120]),
    [1920, 480],
    [2400, 480],
    [2880, 480],
    [3360, 480],
  ])
})

it('a line may begin off the beat, leave notes out, and stay within a piece of the chart', () => {
  const rhythm = { value: '1/8', start: 1.5, rest: { play: 3, rest: 1 } } as const
  const [best] = drafts('| Dm7 | G7 | C |', { figure: figureNamed('1 2 3'), rhythm, from: 3840, to: 7680 })
  expect(best?.line.map((n) => n.at - 3840)).toEqual([480, 960, 1440, 2400, 2880, 3360])
})

it('says what cannot be made', () => {
  const timeline = timelineFor('| N.C. | C |')
  const asked = (more: Partial<MakeRequest>) => makeLines(requestFor(timeline, more), timeline)
  expect(asked({ to: 3840 })).toMatchObject({ error: { code: 'nothing_to_play' } })
  expect(asked({ range: [60, 62] })).toMatchObject({ error: { code: 'out_of_range' } })
  expect(asked({ landing: { at: 0, up: 0, how: 'any' } })).toMatchObject({ error: { code: 'no_landing' } })
  const plain = timelineFor('| C |')
  const early = makeLines(requestFor(plain, { rhythm: { value: '1/8', start: 0.5, rest: null } }), plain)
  expect(early.ok && early.value[0]?.why).toContain('before the first bar is left out')
})

/** What a line costs, reckoned plainly from its groups of pitches. Source: make page, path and joins. */
const plainly = (groups: readonly (readonly number[])[], d: Draft, range: readonly [number, number]): number => {
  const all = d.notes
  const edge = (range[1] - range[0]) / 6
  let [cost, way, n] = [0, 0, 0]
  for (const [g, group] of groups.entries()) {
    for (const [i, pitch] of group.entries()) {
      const [note, next] = [all[n], all[n + 1]]
      cost += Math.max(0, Math.ceil(range[0] + edge - pitch), Math.ceil(pitch - range[1] + edge))
      const role = note?.blue ? 'blue' : note?.role
      if (note?.strong && (role === 'suspension' || role === 'outside')) cost += 8
      if (role === 'outside' && (!next || ((next.blue || next.role !== 'outside') && Math.abs(next.pitch - pitch) > 2)))
        cost += 12
      if (i > 0 && Math.abs(pitch - (group[i - 1] ?? 0)) > 7) cost += 6
      n++
    }
    const before = groups[g - 1]
    if (!before) continue
    const join = Math.abs((group[0] ?? 0) - (before.at(-1) ?? 0))
    cost += join === 0 ? 2 : join === 1 ? 0 : 3 + 2 * (join - 2)
    const to = Math.sign((group[0] ?? 0) - (before[0] ?? 0)) || way
    if (way !== 0 && to !== way) cost += 2
    if (group.join() === before.join()) cost += 6
    way = to
  }
  return cost
}

const MATERIALS = ['A minor pentatonic', 'B minor b5 pentatonic', 'Eb', 'D altered', 'C whole tone', 'F#m7b5 arpeggio']
const CHORDS = ['Dm7', 'G7', 'Cmaj7', 'Bm7b5', 'E7alt', 'Fmaj7']
const FIGURES_TRIED = ['1', '1 3', '1 2 3 5', '3 1', '1 3 5', '1 -1 2']
const plans = fc.record({
  laid: fc.array(fc.constantFrom(...MATERIALS), { minLength: 2, maxLength: 2 }),
  chords: fc.array(fc.constantFrom(...CHORDS), { minLength: 2, maxLength: 2 }),
  figure: fc.constantFrom(...FIGURES_TRIED),
})
const chart = (chords: readonly string[]): string => `| ${chords.join(' ')} |`

it('finds on a free path the cheapest lines there are: all of them tried, on short plans', () => {
  const range = [58, 70] as const
  const tried = fc.record({ laid: plans, value: fc.constantFrom('1/4', '1/4.') })
  fc.assert(
    fc.property(tried, ({ laid, value }) => {
      const timeline = timelineFor(chart(laid.chords))
      const request = requestFor(timeline, {
        plan: laidFrom(laid.laid.map((name, i) => [2 * i, name] as const)),
        ...{ figure: figureNamed(laid.figure), rhythm: { value, start: 1, rest: null } as const },
        ...{ path: 'free', range, limit: 100_000 },
      })
      const all = makeLines(request, timeline)
      const few = makeLines({ ...request, limit: 5 }, timeline)
      expect(all.ok).toBe(few.ok)
      if (!all.ok || !few.ok) return
      const groupsOf = (d: Draft) => d.groups.map((g) => d.line.slice(g.from, g.to + 1).map((n) => n.pitch as number))
      // Every way the groups can stand is there once: as many as there are places for each.
      const kinds = new Set(all.value.map((d) => d.line.map((n) => n.pitch).join()))
      expect(kinds.size).toBe(all.value.length)
      const costs = all.value.map((d) => plainly(groupsOf(d), d, range))
      expect(all.value.map((d) => d.total)).toEqual(costs)
      expect(few.value.map((d) => d.total)).toEqual([...costs].sort((a, b) => a - b).slice(0, 5))
    }),
    { numRuns: 60 },
  )
})

const anyway = fc.record({
  plan: plans,
  path: fc.constantFrom('up', 'down', 'wave', 'nearest', 'free'),
  value: fc.constantFrom('1/8', '1/8t', '1/4', '1/16'),
  start: fc.constantFrom(1, 1.5, 2),
  approach: fc.constantFrom('none', 'half below', 'double above', 'scale above half below', 'enclosure of four'),
  takes: fc.constantFrom('time before', 'its own place'),
  head: fc.constantFrom('', 'metre = 3/4\n', 'metre = 7/8\n', 'metre = 6/8\n', 'pickup = 1\n'),
} as const)

it('holds to its plan, its range and its moments, whatever is asked', () => {
  fc.assert(
    fc.property(anyway, ({ plan, path, value, start, approach, takes, head }) => {
      const timeline = timelineFor(`${head}${chart(plan.chords)} ${chart([...plan.chords].reverse())}`)
      const laid = laidFrom(plan.laid.map((name, i) => [4 * i, name] as const))
      const request = requestFor(timeline, {
        ...{ plan: laid, figure: figureNamed(plan.figure), rhythm: { value, start, rest: null } },
        ...{ path, approach, approachTakes: takes, limit: 3 },
      })
      const made = makeLines(request, timeline)
      if (!made.ok) return
      for (const d of made.value) {
        const led = new Set(d.approaches)
        for (const [i, n] of d.line.entries()) {
          const own = laid.filter((l) => l.from <= n.at).at(-1)?.overlay
          if (!led.has(i)) {
            expect(own && has(own.set, pitchClass(n.pitch))).toBe(true)
            expect(n.pitch).toBeGreaterThanOrEqual(request.range[0])
            expect(n.pitch).toBeLessThanOrEqual(request.range[1])
          }
          const next = d.line[i + 1]
          if (next) expect(n.at + n.for).toBeLessThanOrEqual(next.at)
          expect(Number.isInteger(n.at)).toBe(true)
        }
        expect(d.total).toBe(Object.values(d.terms).reduce((a, b) => a + b, 0))
        expect(d.notes.every((n) => soundingAt(timeline, n.at) !== null)).toBe(true)
      }
    }),
    { numRuns: 150 },
  )
})

it('moves with its plan', () => {
  fc.assert(
    fc.property(plans, fc.integer({ min: 1, max: 11 }), fc.constantFrom('up', 'nearest', 'free'), (plan, by, path) => {
      const NAMES = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
      const up = (name: string): string => {
        const [, root = '', rest = ''] = /^([A-G][b#]?)(.*)$/.exec(name) ?? []
        const read = readOverlay(root)
        return `${NAMES[((read.ok ? read.value.root.pc : 0) + by) % 12]}${rest}`
      }
      const made = (chords: readonly string[], laid: readonly string[], shift: number) =>
        drafts(chart(chords), {
          plan: laidFrom(laid.map((name, i) => [2 * i, name] as const)),
          ...{ figure: figureNamed(plan.figure), path, range: [50 + shift, 80 + shift] },
        })
      const here = made(plan.chords, plan.laid, 0)
      const there = made(plan.chords.map(up), plan.laid.map(up), by)
      expect(there.map((d) => d.line.map((n) => n.pitch - by))).toEqual(here.map((d) => d.line.map((n) => n.pitch)))
    }),
    { numRuns: 40 },
  )
})

it('is found again when it is taken apart: its landing, and the material it was made of', () => {
  const found = { all: 0, material: 0, landing: 0, approach: 0 }
  const chords = ['Cmaj7', 'Ebmaj7', 'Amaj7', 'Fm7', 'Bm7', 'D7', 'Ab7']
  for (const [i, chord] of chords.entries())
    for (const [j, [figure, up]] of [
      ['1 2 3 5', 1],
      ['1 3 5', 6],
      ['1 2 3 4 5 4 3 2', 8],
      ['5 3 1', 11],
    ].entries() as IterableIterator<[number, [string, number]]>)
      for (const kind of ['minor pentatonic', 'major triad pair', 'major', 'maj7 arpeggio']) {
        const timeline = timelineFor(`| ${chord} | ${chord} | ${chord} |`)
        const NAMES = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
        const root = NAMES[(i * 5 + j * 2 + up) % 12] as string
        const next = NAMES[(i * 5 + j * 2 + up + 2) % 12] as string
        const name = kind === 'major triad pair' ? `${root} & ${next}` : kind === 'major' ? root : `${root} ${kind}`
        const made = makeLines(
          requestFor(timeline, {
            ...{ plan: laidFrom([[0, name]]), figure: figureNamed(figure), to: 7680, limit: 1 },
            landing: { at: 7680, up: 0, how: 'half step below' },
          }),
          timeline,
        )
        const [d] = made.ok ? made.value : []
        if (!d) continue
        const audit = auditLine(d.line, timeline, DEFAULT_WEIGHTS)
        const last = d.line.length - 1
        found.all++
        const own = readOverlay(name)
        const cells = audit.cells.filter(
          (c) => c.overlay && own.ok && (c.overlay.set & own.value.set) === c.overlay.set,
        )
        if (cells.length > 0) found.material++
        if (audit.notes[last]?.role === 'chord' && audit.notes[last]?.degree === '1') found.landing++
        const led = audit.notes[last - 1]
        // A half step below that the chord or its scale holds leads as well, and needs no name of its own.
        if (audit.melodic[last - 1] || led?.inHome || audit.stretches.some((s) => s.landing?.on === last))
          found.approach++
      }
  expect(found.all).toBeGreaterThan(90)
  for (const part of [found.material, found.landing, found.approach])
    expect(part / found.all).toBeGreaterThanOrEqual(0.95)
})

it('a band goes through what is laid by half steps over the seams, and rests where nothing is', () => {
  const timeline = timelineFor('| Dm7 | G7 | Cmaj7 |')
  const laid = laidFrom([
    [0, 'A minor pentatonic'],
    [2, 'Bb minor pentatonic'],
    [8, 'C minor pentatonic'],
  ]).map((l, i) => ({ from: l.from, to: [1920, 3840, 9600][i] ?? 0, overlay: l.overlay as Overlay }))
  const how = requestFor(timeline, { figure: figureNamed('1'), path: 'up', range: [58, 82] })
  const line = lineThrough(laid, how, timeline)
  expect(line.map((n) => n.at)).toEqual([0, 480, 960, 1440, 1920, 2400, 2880, 3360, 7680, 8160, 8640, 9120])
  expect(Math.abs((line[4]?.pitch ?? 0) - (line[3]?.pitch ?? 0))).toBe(1)
  for (const n of line) {
    const own = laid.findLast((l) => l.from <= n.at)
    expect(own && has(own.overlay.set, n.pitch % 12)).toBe(true)
  }
})
