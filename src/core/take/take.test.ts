import { describe, expect, it } from 'vitest'
import { drawnFrom } from '../../server/drawn.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import { barsAt } from '../time/bars.ts'
import { readTune } from '../tune.ts'
import { type PlayersManner, TIDY } from './manner.ts'
import type { PlannedFrom } from './plan.ts'
import type { PlayedNote } from './played.ts'
import { readTake } from './read-take.ts'
import { PLANTED, type Planted, simulatedTake } from './simulated.ts'
import { timingOf } from './timing.ts'

const vamp = (chord: string, bars: number): string => `| ${chord} ${'| % '.repeat(bars - 1)}|`
const CADENCES = '| Dm7 | G7 | Cmaj7 | % | Fm7 | Bb7 | Ebmaj7 | % |'

/**
 * Twenty kinds of plans: slips, tritones, pairs, fourths, symmetric scales, foreign changes, in several metres and lengths.
 * `2.3 Eb dorian` is laid from bar 2, beat 3 on.
 */
const PLANS: readonly (readonly [name: string, chart: string, laid: string])[] = [
  ['slips up', vamp('Dm7', 16), '1 home; 5 Eb dorian; 9 home; 13 Eb dorian; 15 home'],
  ['a slip down', vamp('Dm7', 16), '1 home; 5 Db dorian; 9 home'],
  ['the tritone', CADENCES, '1 home; 2 Ab minor pentatonic; 3 home; 6 B minor pentatonic; 7 home'],
  [
    'rising',
    '| Dm7 | G7 | Cmaj7 | % | Dm7 | G7 | Cmaj7 | % |',
    '1 A minor pentatonic; 2 Bb minor pentatonic; 3 B minor pentatonic; 5 A minor pentatonic; 6 Bb minor pentatonic; 7 B minor pentatonic',
  ],
  ['triads a third away', vamp('Cmaj7', 12), '1 home; 3 E; 5 Ab; 7 home'],
  ['a pair that slips', vamp('Dm7', 12), '1 F & G; 5 Gb & Ab; 9 F & G'],
  [
    'half-whole',
    '| Em7b5 | A7b9 | Dm6 | % | Am7 | D7 | Gmaj7 | % |',
    '1 home; 2 A half-whole; 3 home; 6 D half-whole; 7 home',
  ],
  [
    'whole tone',
    '| Gm7 | C7 | Fmaj7 | % | Gm7 | C7 | Fmaj7 | % |',
    '1 home; 2 C whole tone; 3 home; 6 C whole tone; 7 home',
  ],
  ['fourths', vamp('Gm7', 16), '1 G quartal 3; 5 Ab quartal 3; 9 G quartal 3'],
  ['a waltz', `metre = 3/4\n${vamp('Dm7', 12)}`, '1 home; 5 Eb minor pentatonic; 9 home'],
  ['a static dominant', vamp('G7', 16), '1 home; 5 Ab major pentatonic; 9 home; 13 Db major pentatonic; 15 home'],
  [
    'altered',
    '| Cm7 | F7alt | Bbmaj7 | % | Cm7 | F7alt | Bbmaj7 | % |',
    '1 home; 2 F altered; 3 home; 6 B lydian dominant; 7 home',
  ],
  [
    'half bars',
    '| Dm7 G7 | Cmaj7 | Fm7 Bb7 | Ebmaj7 | Am7 D7 | Gmaj7 | Dm7 G7 | Cmaj7 |',
    '1 home; 1.3 Db major pentatonic; 2 home; 3.3 E major pentatonic; 4 home; 5.3 Ab major pentatonic; 6 home; 7.3 Db major pentatonic; 8 home',
  ],
  ['augmented', vamp('Cmaj7', 16), '1 home; 5 Db augmented scale; 9 home'],
  [
    'a blues',
    '| C7 | F7 | C7 | % | F7 | % | C7 | A7alt | Dm7 | G7alt | C7 | % |',
    '1 home; 4 Db major pentatonic; 5 home; 10 Ab minor pentatonic; 11 home',
  ],
  ['foreign changes', vamp('Am7', 16), '1 home; 5 Bbm7 arpeggio; 6 Eb7 arpeggio; 7 Abmaj7 arpeggio; 9 home'],
  ['seven', `metre = 7/4\n${vamp('Bbm9', 8)}`, '1 home; 3 B minor pentatonic; 5 home'],
  [
    'all inside',
    '| Fmaj7 | Dm7 | Gm7 | C7 | Fmaj7 | Dm7 | Gm7 | C7 | Fmaj7 |',
    '1 A minor pentatonic; 2 D minor pentatonic; 3 G minor pentatonic; 4 D minor pentatonic; 5 F major pentatonic; 6 A minor pentatonic; 7 Bb major pentatonic; 8 C mixolydian; 9 home',
  ],
  ['out to the end', vamp('Em7', 12), '1 home; 9 F dorian'],
  [
    'short slips',
    vamp('Dm7', 8),
    '1 home; 2.3 Eb minor pentatonic; 3 home; 4.3 Db minor pentatonic; 5 home; 6 Eb minor pentatonic; 7 home',
  ],
]

const overPlan = (text: string, laid: string) => {
  const tune = readTune(text)
  if (!tune.ok) throw new Error(text)
  const { chart, timeline } = tune.value
  const plan = laid.split('; ').map((step): PlannedFrom => {
    const [, bar, beat = '1', name = ''] = /^(\d+)(?:\.(\d))? (.+)$/.exec(step) ?? []
    const read = name === 'home' ? null : readOverlay(name)
    if (read && !read.ok) throw new Error(name)
    const begin = barsAt(chart).find((b) => b.number === Number(bar))?.from ?? 0
    return { from: begin + (Number(beat) - 1) * timeline.beat, overlay: read?.ok ? read.value : null }
  })
  return { timeline, plan }
}

const JUDGES = { school: DEFAULT_SCHOOL, weights: DEFAULT_WEIGHTS }
const faultsIn = (sentences: ReturnType<typeof readTake>['sentences']) =>
  sentences.filter((s) => s.tone === 'fault').map((s) => s.about)

const played = (
  { timeline, plan }: ReturnType<typeof overPlan>,
  fault: Planted | null,
  seed: number,
  manner: Partial<PlayersManner> = {},
) => {
  const tempo = [96, 132, 180][seed % 3] as number
  const how = { ...TIDY, swing: [50, 60, 66][seed % 3] as number, ...manner }
  const ask = { ...JUDGES, plan, tempo, manner: how, fault, range: [55, 84] as const }
  const notes = simulatedTake(ask, timeline, drawnFrom(seed * 77))
  return notes && { notes, read: readTake({ ...JUDGES, notes, plan, tempo }, timeline) }
}

describe('a take by the simulated player', () => {
  it.each(PLANS)(
    '%s: each planted fault is named, no other, and a clean take has none',
    (_, text, laid) => {
      const over = overPlan(text, laid)
      for (const fault of [null, ...PLANTED])
        for (const seed of [1, 2, 3]) {
          const take = played(over, fault, seed)
          if (take)
            expect([fault, seed, ...faultsIn(take.read.sentences)]).toEqual([fault, seed, ...(fault ? [fault] : [])])
        }
    },
    60_000,
  )

  it('finds a place for each fault in most plans', () => {
    for (const fault of PLANTED) {
      const places = PLANS.filter(([, text, laid]) => played(overPlan(text, laid), fault, 1) !== null)
      expect(places.length, fault).toBeGreaterThan(
        ['one device', 'missed step', 'resting suspension'].includes(fault) ? 4 : 10,
      )
    }
  })

  it('has one to five sentences, one of them good, each with bars of the chart', () => {
    for (const [, text, laid] of PLANS) {
      const over = overPlan(text, laid)
      const bars = over.timeline.soundings.map((s) => s.spot.spot.bar)
      const { read } = played(over, 'overstay', 4, { wrong: 0.3, looseness: 45 }) ??
        played(over, null, 4) ?? { read: null }
      expect(read?.sentences.length).toBeLessThanOrEqual(5)
      expect(read?.sentences.some((s) => s.tone === 'good')).toBe(true)
      for (const s of read?.sentences ?? []) {
        expect(bars).toContain(s.bars[0])
        expect(s.bars[1]).toBeGreaterThanOrEqual(s.bars[0])
      }
    }
  })

  it('is the same for the same seed and another for another', () => {
    const over = overPlan(CADENCES, '1 home')
    expect(played(over, null, 3)).toEqual(played(over, null, 3))
    expect(played(over, null, 3)?.notes).not.toEqual(played(over, null, 6)?.notes)
  })
})

describe('a take step by step', () => {
  const over = overPlan('| Dm7 | G7 | Cmaj7 | % |', '1 home; 2 Db major pentatonic; 3 home')
  const eighths = (pitches: readonly number[], at = 0): readonly PlayedNote[] =>
    pitches.map((pitch, i) => ({ at: at + i * 480, for: 450, pitch }))
  const read = (notes: readonly PlayedNote[], plan = over.plan) =>
    readTake({ ...JUDGES, notes, plan, tempo: 120 }, over.timeline)

  it('tells how much lies in the plan and how much at home, and how far out against the wish', () => {
    const [, out] = read(eighths([62, 64, 65, 67, 69, 67, 65, 64, 61, 63, 65, 68, 70, 68, 65, 61, 60])).steps
    expect(out).toMatchObject({ bar: 2, beat: 1, chord: 'G7', inPlan: 1, isOut: true })
    // F alone of that pentatonic is at home over G7.
    expect(out?.inHome).toBeCloseTo(2 / 8, 5)
    expect(out?.fade).toBeGreaterThan(20)
  })

  it('has no share where nothing was played', () => {
    expect(read(eighths([62, 64, 65])).steps[1]).toMatchObject({ inPlan: null, inHome: null, fade: null })
  })

  it('goes on over the form, chorus by chorus', () => {
    const twice = [
      ...eighths([62, 64, 65, 67]),
      ...eighths([62, 64, 65, 67, 69, 71, 72, 71, 69, 67], over.timeline.length),
    ]
    expect(read(twice).steps.map((s) => s.chorus)).toEqual([1, 1, 1, 2, 2, 2])
  })

  it('without a plan, only five bars and more outside are too long', () => {
    const slipped = (bars: number) => {
      const { timeline } = overPlan(vamp('Dm7', 12), '1 home')
      const notes = eighths([
        ...Array.from({ length: bars * 8 }, (_, i) => 63 + ([0, 3, 5, 7][i % 4] as number)),
        69,
        65,
        62,
        65,
      ])
      return faultsIn(readTake({ ...JUDGES, notes, plan: [], tempo: 120 }, timeline).sentences)
    }
    expect(slipped(3)).toEqual([])
    expect(slipped(6)).toEqual(['overstay'])
  })

  it('says of an empty take that it is empty, and of one note something good', () => {
    expect(read([]).sentences.map((s) => s.about)).toEqual(['silence'])
    expect(read(eighths([62]), []).sentences.some((s) => s.tone === 'good')).toBe(true)
  })

  it('follows the school: an angular player may leap home', () => {
    const slip = overPlan(vamp('Dm7', 4), '1 home; 2 Eb dorian; 3 home')
    // The last note outside is left by a leap over an octave.
    const notes = eighths([62, 64, 65, 67, 69, 67, 65, 64, 63, 66, 70, 73, 75, 73, 70, 66, 50, 53, 57, 53])
    const angular = { ...DEFAULT_SCHOOL, wayHome: 'angular' } as const
    const by = (school: typeof DEFAULT_SCHOOL) =>
      faultsIn(readTake({ ...JUDGES, school, notes, plan: slip.plan, tempo: 120 }, slip.timeline).sentences)
    expect(by(DEFAULT_SCHOOL)).toContain('no landing')
    expect(by(angular)).not.toContain('no landing')
  })

  it('names a bar once, however many choruses have it there', () => {
    const slip = overPlan(vamp('Dm7', 4), '1 home; 2 Eb dorian; 3 home')
    const chorus = [62, 64, 65, 67, 69, 67, 65, 64, 63, 66, 70, 73, 75, 73, 70, 66, 50, 53, 57, 53]
    const notes = [0, 1, 2].flatMap((k) => eighths(chorus, k * slip.timeline.length))
    const told = readTake({ ...JUDGES, notes, plan: slip.plan, tempo: 120 }, slip.timeline).sentences
    const fault = told.find((s) => s.about === 'no landing')
    expect(fault?.text).not.toContain('Also')
  })

  it('keeps the highest of what is struck together', () => {
    const chord = [60, 64, 67].map((pitch, i) => ({ at: i * 10, for: 900, pitch }))
    expect(read(chord).line.map((n) => n.pitch)).toEqual([67])
  })
})

describe('the time of a take', () => {
  const { timeline } = overPlan('| Dm7 | G7 |', '1 home')
  const about = (rng: () => number) => Math.sqrt(-2 * Math.log(1 - rng())) * Math.cos(2 * Math.PI * rng())

  it.each([
    ...[60, 100, 140, 180, 220].flatMap((tempo) => [50, 60, 66].map((swing) => ({ tempo, swing, ahead: 0, loose: 8 }))),
    ...[100, 140, 180].flatMap((tempo) => [40, -50].map((ahead) => ({ tempo, swing: 50, ahead, loose: 10 }))),
  ])('$tempo beats, swing $swing, $ahead ms ahead: found again', ({ tempo, swing, ahead, loose }) => {
    const rng = drawnFrom(tempo + swing)
    const tick = (timeline.beat * tempo) / 60_000
    const notes = Array.from({ length: 120 }, (_, i) => {
      const at = Math.floor(i / 2) * 960 + (i % 2) * (swing / 100) * 960
      return { at: at + (about(rng) * loose - ahead) * tick, for: 400, pitch: 60 }
    })
    const found = timingOf(notes)
    expect(Math.abs(found.mean / tick + ahead)).toBeLessThan(8)
    expect(Math.abs(found.spread / tick - loose)).toBeLessThan(6)
    expect(Math.abs((found.swing ?? 0) - swing)).toBeLessThanOrEqual(3)
  })

  it('leaves triplets and sixteenths where they are', () => {
    const at = [0, 320, 640, 960, 1200, 1440, 1680, 1920, 2400]
    const found = timingOf(at.map((t) => ({ at: t + 12, for: 200, pitch: 60 })))
    expect(found.notes.map((n) => n.written)).toEqual(at)
  })

  it('writes no two notes on one moment', () => {
    const found = timingOf([0, 100, 900, 960, 1000, 1440].map((t) => ({ at: t, for: 50, pitch: 60 })))
    expect(new Set(found.notes.map((n) => n.written)).size).toBe(6)
  })
})
