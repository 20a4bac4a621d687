import type { Line, Reading, Result, RouteRules } from '../../src/core/index.ts'
import {
  ANYTHING,
  analyseChart,
  auditLine,
  bandOver,
  barsAt,
  DEFAULT_SCHOOL,
  DEFAULT_WEIGHTS,
  FAMILY_NAMES,
  fingeringOf,
  lineOf,
  midi,
  nameSet,
  PLAIN_REQUEST,
  placeOf,
  planRoutes,
  rankOverlays,
  rankPairs,
  readChart,
  readChord,
  readOver,
  readOverlay,
  readRequest,
  readTuning,
  rulesOver,
  SPOT_BY_SPOT,
  slotsOf,
  TUNINGS,
  ticks,
  timelineOf,
  writtenBar,
} from '../../src/core/index.ts'
import { nameByHand, notesOver, rankByHand } from './by-hand.ts'
import { byTonal } from './by-tonal.ts'
import { type Triple, triples } from './seeded.ts'

const COUNT = 2000
const ROUNDS = 60

const must = <T, E>(result: Result<T, E>): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.error))
  return result.value
}

/** From the words to the whole reading: nothing is remembered between questions. */
const byUs = ({ root, scale, chord, next }: Triple): Reading =>
  readOver(must(readOverlay(`${root} ${scale}`)), placeOf(must(readChord(chord)), must(readChord(next))))

/**
 * Milliseconds a question of each way of answering, the best of several rounds; the ways take turns, so that what else the
 * machine does meets them alike.
 */
const timed = <Q>(questions: readonly Q[], rounds: number, ways: readonly ((q: Q) => unknown)[]): readonly number[] => {
  const best = ways.map(() => Number.POSITIVE_INFINITY)
  for (let round = 0; round < rounds; round++)
    for (const [i, answer] of ways.entries()) {
      const from = performance.now()
      for (const q of questions) answer(q)
      best[i] = Math.min(best[i] as number, (performance.now() - from) / questions.length)
    }
  return best
}

const questions = triples(COUNT, 20261125)
/** Names and degrees, as a string to compare. */
const ofUs = (q: Triple): string =>
  byUs(q)
    .notes.map((n) => `${n.note.name} ${n.degree}`)
    .join(', ')
const ofTonal = (q: Triple): string =>
  byTonal(q)
    .notes.map((n) => `${n.name} ${n.degree}`)
    .join(', ')
const differing = questions.filter((q) => ofUs(q) !== ofTonal(q))
console.log(`${COUNT} different questions; names and degrees agree in ${COUNT - differing.length}`)
for (const q of differing.slice(0, 5))
  console.log(`  ${Object.values(q).join(' ')}\n    ours   ${ofUs(q)}\n    tonal  ${ofTonal(q)}`)

const parsed = questions.map((q) => ({
  overlay: must(readOverlay(`${q.root} ${q.scale}`)),
  chord: must(readChord(q.chord)),
  next: must(readChord(q.next)),
}))
let at = 0
const [ours, reading, theirs] = timed(questions, ROUNDS, [
  byUs,
  () => {
    const p = parsed[at++ % parsed.length]
    return p && readOver(p.overlay, placeOf(p.chord, p.next))
  },
  byTonal,
]).map((ms) => ms * 1000) as [number, number, number]
console.log(`one full reading (degrees, roles, fade, exits, landing): ${reading.toFixed(1)} µs (at most 20)`)
console.log(`the same from the words, each read at each question:     ${ours.toFixed(1)} µs`)
console.log(`names, degrees, roles, exits and landing by tonal:      ${theirs.toFixed(1)} µs`)
console.log(
  `ratio: ${(theirs / ours).toFixed(1)} × from the words, ${(theirs / reading).toFixed(1)} × against the reading alone (at least 20)`,
)

const some = parsed.slice(0, 40)
const ANY_PAIR = { ...ANYTHING, qualities: null, distance: null, exclusive: null }
const NO_BLUES = { ...ANYTHING, families: ANYTHING.families.filter((f) => f !== 'blues'), sort: 'fade' } as const
const notes = new Map(some.map((p) => [p, notesOver(placeOf(p.chord, p.next), DEFAULT_WEIGHTS)]))
const rankedByHand = (p: (typeof some)[number]): readonly number[] =>
  rankByHand(notes.get(p) ?? notesOver(placeOf(p.chord, p.next), DEFAULT_WEIGHTS), DEFAULT_WEIGHTS.meanShare)
const [overlays, ranked, rankingByHand, naming, namingByHand] = timed(some, 3 * ROUNDS, [
  (p) => rankOverlays(placeOf(p.chord, p.next), ANYTHING, DEFAULT_WEIGHTS),
  (p) => rankOverlays(placeOf(p.chord, p.next), NO_BLUES, DEFAULT_WEIGHTS),
  rankedByHand,
  (p) => nameSet(p.overlay),
  (p) => nameByHand(p.overlay.set),
]) as [number, number, number, number, number]
const [pairs] = timed(some, 12, [(p) => rankPairs(placeOf(p.chord, p.next), ANY_PAIR, DEFAULT_WEIGHTS)]) as [number]
const sameRanks = some.filter((p) => {
  const ours = rankOverlays(placeOf(p.chord, p.next), NO_BLUES, DEFAULT_WEIGHTS).map((r) => r.measured.fade)
  return ours.join() === rankedByHand(p).join()
}).length
const sameNames = some.filter((p) => {
  const { within, holds } = nameSet(p.overlay)
  return `${[within.length, holds.length]}` === `${nameByHand(p.overlay.set)}`
}).length
console.log(`every single overlay on 12 roots ranked over a chord:    ${overlays.toFixed(2)} ms (at most 5)`)
console.log(
  `  a plain loop over the same sets ${rankingByHand.toFixed(3)} ms: ${(overlays / rankingByHand).toFixed(1)} × (at most 3); by fade alone ${ranked.toFixed(3)} ms, ${(ranked / rankingByHand).toFixed(1)} ×, ${sameRanks} of ${some.length} the same`,
)
console.log(`every pair of triads ranked over a chord:                ${pairs.toFixed(2)} ms (at most 30)`)
console.log(`naming a set against the whole catalogue:                ${naming.toFixed(3)} ms (at most 0.2)`)
console.log(
  `  a plain loop over the same sets ${(namingByHand * 1000).toFixed(1)} µs, ${sameNames} of ${some.length} find as many; ${(naming / namingByHand).toFixed(1)} × (at most 3)`,
)

const LONG = `key = Ab\n${'| Abmaj7 Fm7 | Bbm7 Eb7 | Cm7b5 F7b9 | Bm7 E7 Bbm7 Eb7 |\n'.repeat(16)}`
const long = must(readChart(LONG))
const fastest = (work: () => unknown): number => {
  let best = Number.POSITIVE_INFINITY
  for (let round = 0; round < 40; round++) {
    const from = performance.now()
    work()
    best = Math.min(best, performance.now() - from)
  }
  return best
}
console.log(`reading the text of a 64-bar chart:                      ${fastest(() => readChart(LONG)).toFixed(2)} ms`)
console.log(
  `analysing a 64-bar chart:                                ${fastest(() => analyseChart(long, true)).toFixed(2)} ms (at most 10)`,
)

const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
const KINDS = ['m7', '7', 'maj7', 'm7b5', '7alt', '7#11', '6', 'm6']
/** A form on which no two neighbouring chords repeat: each slot has its own candidates. */
const wandering = (bars: number): string => {
  const chord = (i: number): string => `${ROOTS[(i * 5) % 12]}${KINDS[(i * 3 + (i >> 3)) % 8]}`
  return Array.from({ length: bars }, (_, i) => `| ${chord(2 * i)} ${chord(2 * i + 1)} `).join('')
}
const ALL_SINGLE = FAMILY_NAMES.filter((f) => !['slip', 'changed', 'pair'].includes(f))

interface Planned {
  readonly ms: number
  readonly longest: number
  readonly steps: number
}
/** A planning as the worker runs it: how long in all, and the longest piece before it could be stopped. */
const plan = (bars: number, change: Partial<RouteRules>, eachSeries: boolean): Planned => {
  const chart = must(readChart(wandering(bars)))
  const slots = slotsOf(analyseChart(chart, true), [], DEFAULT_SCHOOL, SPOT_BY_SPOT)
  const request = must(readRequest({ ...PLAIN_REQUEST, families: ALL_SINGLE }, 'as minor'))
  const asked = rulesOver(slots, request)
  const rules = {
    ...asked,
    ...(change.usual ? {} : { usual: false, arc: slots.map((_, i) => (i * 17) % 60) }),
    ...change,
  }
  const from = performance.now()
  let [since, longest] = [from, 0]
  const work = planRoutes(slots, rules, DEFAULT_WEIGHTS, { best: 20, eachSeries })
  for (let next = work.next(); !next.done; next = work.next()) {
    longest = Math.max(longest, performance.now() - since)
    since = performance.now()
  }
  return { ms: performance.now() - from, longest, steps: slots.length }
}
const PLANS: readonly (readonly [string, number, Partial<RouteRules>, boolean?])[] = [
  ['32 bars, two chords a bar, the first time', 32, {}],
  ['32 bars, two chords a bar', 32, {}],
  ['64 bars, two chords a bar', 64, {}],
  ['128 bars, two chords a bar', 128, {}],
  ['256 bars, two chords a bar', 256, {}],
  ['32 bars, pairs too', 32, { families: [...ALL_SINGLE, 'pair'] }],
  ['32 bars, against the bass', 32, { motion: { kind: 'contrary' }, scope: 'throughout' }],
  ['32 bars, one note at a time', 32, { motion: { kind: 'one-note' }, scope: 'throughout' }],
  ['32 bars, any constant', 32, { motion: { kind: 'shape', by: null } }],
  ['32 bars, the last step joining the first', 32, { loop: true }],
  ['32 bars, no arc given', 32, { usual: true }],
  ['32 bars, no arc, one of each series', 32, { usual: true }, true],
  ['32 bars, against the bass, one of each series', 32, { motion: { kind: 'contrary' }, scope: 'throughout' }, true],
]
console.log('twenty best routes, every single overlay a candidate (32 bars: at most 500 ms, linear):')
for (const [what, bars, change, series = false] of PLANS) {
  const { ms, longest, steps } = plan(bars, change, series)
  const cold = what.endsWith('first time')
  console.log(
    `  ${what.padEnd(44)} ${ms.toFixed(0).padStart(5)} ms, ${(ms / steps).toFixed(1)} ms a step, longest piece ${longest.toFixed(0)} ms${cold ? ' (tables made)' : ''}`,
  )
}

/** A chorus of sixteenths that wanders by steps and leaps. */
const chorus = (bars: number): Line => {
  let pitch = 60
  return lineOf(
    Array.from({ length: bars * 16 }, (_, i) => {
      pitch += [2, 1, -2, 3, -1, 2, -4, 1, 2, -3, 5, -2, -1][(i * 7 + (i >> 4)) % 13] ?? 0
      if (pitch > 84 || pitch < 52) pitch = 60 + (i % 7)
      return { at: ticks(i * 240), for: ticks(240), pitch: midi(pitch) }
    }),
  )
}
const form = must(readChart(wandering(32)))
const time = timelineOf(form, analyseChart(form, true), [], DEFAULT_SCHOOL)
const sixteenths = chorus(32)
const audits = Array.from({ length: 8 }, () => {
  const from = performance.now()
  auditLine(sixteenths, time, DEFAULT_WEIGHTS)
  return performance.now() - from
})
console.log(
  `taking a 32-bar chorus of sixteenths apart:              ${Math.min(...audits).toFixed(0)} ms, the first time ${(audits[0] ?? 0).toFixed(0)} ms (at most 100)`,
)

console.log('the same by its size, flat within 1.5 × (the least of eight):')
const leastOf = (work: () => unknown): number => {
  const all = Array.from({ length: 8 }, () => {
    const from = performance.now()
    work()
    return performance.now() - from
  })
  return Math.min(...all)
}
const byBar = [64, 128, 256, 512].map((bars) => {
  const chart = must(readChart(wandering(bars)))
  return { size: bars, each: (leastOf(() => analyseChart(chart, true)) * 1000) / bars }
})
const byNote = [256, 512, 1024, 2048, 4096, 8192].map((notes) => {
  const [chart, line] = [must(readChart(wandering(notes / 16))), chorus(notes / 16)]
  const over = timelineOf(chart, analyseChart(chart, true), [], DEFAULT_SCHOOL)
  return { size: notes, each: (leastOf(() => auditLine(line, over, DEFAULT_WEIGHTS)) * 1000) / notes }
})
for (const [what, all] of [
  ['analysed, µs a bar', byBar],
  ['taken apart, µs a note', byNote],
] as const) {
  const each = all.map((f) => f.each)
  const told = all.map((f) => `${f.size}: ${f.each.toFixed(0)}`).join(', ')
  console.log(`  ${what.padEnd(24)} ${told}; ${(Math.max(...each) / Math.min(...each)).toFixed(2)} ×`)
}

const whole = { from: 0, to: time.length }
const wrote = performance.now()
const band = bandOver(form, time, 'swing', whole)
const played = performance.now()
const signs = barsAt(form).flatMap((bar) => writtenBar(sixteenths, bar, time.beat))
const written = performance.now()
fingeringOf(
  sixteenths.map((n) => n.pitch),
  must(readTuning(TUNINGS[0].strings)),
)
console.log(
  `a band over 32 bars, two chords a bar:                   ${(played - wrote).toFixed(0)} ms, ${band.length} notes`,
)
console.log(
  `a chorus of sixteenths written out, and fingered:        ${(written - played).toFixed(0)} ms, ${signs.length} signs; ${(performance.now() - written).toFixed(0)} ms`,
)
