import { lastWhere } from '../grouped.ts'
import { type HeardNote, heardLine } from '../line/heard.ts'
import { endOf, type Line, type LineNote, lineOf } from '../line/line.ts'
import type { Overlay } from '../material/overlay.ts'
import { has, rotate } from '../pitch/pcset.ts'
import { midi, type PcSet, pitchClass, ticks } from '../pitch/units.ts'
import type { Weights } from '../reading/weights.ts'
import { soundingAt, type Timeline } from '../time/timeline.ts'
import { type ApproachName, approachTo } from './approach.ts'
import { ladderOf } from './ground.ts'
import { cutAt } from './places.ts'
import { VALUES, type ValueName } from './rhythm.ts'

/** One way a line was varied: what was done in words, and which chord tones now stand on strong beats. */
export interface Variation {
  readonly name: string
  readonly line: Line
  readonly why: string
  readonly meets?: readonly {
    readonly n: number
    readonly bar: number
    readonly beat: number
    readonly degree: string
  }[]
}

/** What is done to a line, with what that needs. */
export type Variant =
  | { readonly by: 'rhythm'; readonly value: ValueName; readonly start: number | null }
  | { readonly by: 'four ways' }
  | { readonly by: 'displace'; readonly ticks: number }
  | { readonly by: 'octave' }
  | { readonly by: 'backwards' }
  | { readonly by: 'inversion' }
  | {
      readonly by: 'sequence'
      readonly semitones: number | null
      readonly steps: number | null
      readonly times: number
    }
  | { readonly by: 'carry'; readonly overlay: Overlay }
  | { readonly by: 'approach'; readonly approach: ApproachName }
  | { readonly by: 'cut' }
  | { readonly by: 'targets' }
  | { readonly by: 'order'; readonly places: readonly number[] }

interface Ground {
  readonly timeline: Timeline
  readonly weights: Weights
}

/** What stands round a stretch stays; what the stretch now reaches into gives way. */
const within = (line: Line, part: Line, changed: Line): Line => {
  const first = part[0]?.at ?? 0
  const last = part.at(-1)?.at ?? 0
  const next = line.find((n) => n.at > last)?.at ?? Number.POSITIVE_INFINITY
  const own = changed
    .filter((n) => n.at < next && n.at >= 0)
    .map((n) => (endOf(n) > next ? { ...n, for: ticks(next - n.at) } : n))
  const begin = Math.min(first, own[0]?.at ?? first)
  const before = line
    .filter((n) => n.at < first && n.at < begin)
    .map((n) => (endOf(n) > begin ? { ...n, for: ticks(begin - n.at) } : n))
  return lineOf([...before, ...own, ...line.filter((n) => n.at > last)])
}

const atPitches = (part: Line, pitches: readonly number[]): Line =>
  part.map((n, i) => ({ at: n.at, for: n.for, pitch: midi(pitches[i] ?? n.pitch) }))

const homeAt = ({ timeline }: Ground, at: number): PcSet => {
  const place = soundingAt(timeline, at)?.place
  return place ? rotate(place.home.inside, place.chord.root.pc) : (0xfff as PcSet)
}

/** A pitch moved by steps of a set; off the set it is moved with the note of it below. */
const bySteps = (set: PcSet, pitch: number, steps: number): number => {
  const ladder = ladderOf({ set }, pitch - 60, pitch + 60)
  const at = lastWhere(ladder, (p) => p <= pitch)
  const from = ladder[at] ?? pitch
  return (ladder[at + steps] ?? pitch) + (pitch - from)
}

const stepsBetween = (set: PcSet, from: number, to: number): number => {
  const ladder = ladderOf({ set }, Math.min(from, to) - 14, Math.max(from, to) + 14)
  const at = (p: number) => lastWhere(ladder, (q) => q <= p)
  return at(to) - at(from)
}

const regrid = (part: Line, from: number, value: ValueName): Line =>
  part.map((n, i) => ({ at: ticks(from + i * VALUES[value]), for: ticks(VALUES[value]), pitch: n.pitch }))

const onBeat = (at: number, beat: number): number => Math.floor(at / beat) * beat

const fourWays = (part: Line, { timeline }: Ground): readonly (readonly [string, Line])[] => {
  const from = onBeat(part[0]?.at ?? 0, timeline.beat)
  return (['1/8', '1/8t'] as const).flatMap((value) =>
    [0, VALUES[value]].map(
      (off) =>
        [
          `${value === '1/8' ? 'eighths' : 'triplets'} ${off ? 'off' : 'on'} the beat`,
          regrid(part, from + off, value),
        ] as const,
    ),
  )
}

const upsideDown = (part: Line, ground: Ground): readonly (readonly [string, Line])[] => {
  const first = part[0]
  if (!first) return []
  const exact = atPitches(
    part,
    part.map((n) => 2 * first.pitch - n.pitch),
  )
  const set = homeAt(ground, first.at)
  const inScale = atPitches(
    part,
    part.map((n) => bySteps(set, first.pitch, -stepsBetween(set, first.pitch, n.pitch))),
  )
  return [
    ['upside down in the scale', inScale],
    ['upside down, exact', exact],
  ]
}

const sequence = (part: Line, variant: Variant & { by: 'sequence' }, ground: Ground): Line => {
  const [first, last] = [part[0], part.at(-1)]
  if (!first || !last) return part
  const { beat } = ground.timeline
  const length = Math.ceil((endOf(last) - first.at) / beat) * beat
  const move = (n: LineNote, k: number): number => {
    if (variant.semitones !== null) return n.pitch + k * variant.semitones
    return bySteps(homeAt(ground, n.at + k * length), n.pitch, k * (variant.steps ?? 1))
  }
  return Array.from({ length: variant.times + 1 }, (_, k) =>
    part.map((n) => ({ at: ticks(n.at + k * length), for: n.for, pitch: midi(move(n, k)) })),
  ).flat()
}

/** The nearest note of a set to a pitch, the one below where two are as near. */
const nearestOf = (set: PcSet, pitch: number): number => {
  for (let by = 0; by <= 6; by++) for (const p of [pitch - by, pitch + by]) if (has(set, pitchClass(p))) return p
  return pitch
}

/** A stretch on another overlay: by the same places of its notes, or its shape moved as a whole. */
const carried = (part: Line, { set, name }: Overlay): readonly (readonly [string, Line])[] => {
  const first = part[0]
  if (!first) return []
  const own = part.reduce((all, n) => all | (1 << pitchClass(n.pitch)), 0) as PcSet
  const start = nearestOf(set, first.pitch)
  const placed = part.map((n) => bySteps(set, start, stepsBetween(own, first.pitch, n.pitch)))
  return [
    [`the same places of ${name}`, atPitches(part, placed)],
    [
      `the same shape, from ${name}`,
      atPitches(
        part,
        part.map((n) => n.pitch + start - first.pitch),
      ),
    ],
  ]
}

const isLed = (n: HeardNote): boolean => n.role === 'chord' && n.onBeat

const ledTo = (notes: readonly HeardNote[], approach: ApproachName, ground: Ground): Line =>
  notes.flatMap((n, i): readonly LineNote[] => {
    const before = notes[i - 1]
    const plain = { at: n.at, for: n.for, pitch: n.pitch }
    if (!isLed(n) || !before || endOf(before) < n.at) return [plain]
    const led = approachTo(approach, n.pitch, homeAt(ground, n.at), 0 as PcSet)
    const share = Math.floor((n.at - before.at) / 2 / Math.max(1, led.length))
    return [
      ...led.map((p, k) => ({ at: ticks(n.at - share * (led.length - k)), for: ticks(share), pitch: midi(p) })),
      plain,
    ]
  })

const shortened = (line: Line): Line =>
  lineOf(line).map((n, i, all) => {
    const next = all[i + 1]
    return next && endOf(n) > next.at ? { ...n, for: ticks(next.at - n.at) } : n
  })

/** Without what only leads to the next note by a half step and is not of the chord or its scale. */
const unled = (notes: readonly HeardNote[]): Line => {
  const isApproach = (n: HeardNote, i: number): boolean => {
    const next = notes[i + 1]
    return next !== undefined && !n.inHome && n.role !== 'chord' && Math.abs(next.pitch - n.pitch) <= 2 && !n.strong
  }
  const kept = notes.filter((n, i) => !isApproach(n, i))
  return kept.map((n, i) => {
    const next = notes[n.n + 1]
    const gone = next && kept[i + 1] && kept[i + 1]?.n !== n.n + 1
    return { at: n.at, for: ticks(gone ? (kept[i + 1] as HeardNote).at - n.at : n.for), pitch: n.pitch }
  })
}

const targets = (notes: readonly HeardNote[]): Line => {
  const kept = notes.filter(isLed)
  return kept.map((n, i) => ({
    at: n.at,
    for: ticks((kept[i + 1]?.at ?? Math.max(endOf(n), endOf(notes.at(-1) as HeardNote))) - n.at),
    pitch: n.pitch,
  }))
}

const cut = (part: Line, { timeline }: Ground): Line => {
  const sounding = soundingAt(timeline, part[0]?.at ?? 0)
  if (!sounding) return part
  const next = soundingAt(timeline, sounding.to)
  return cutAt(part, sounding.to, next?.place?.chord ?? null, timeline.beat)
}

const reordered = (part: Line, places: readonly number[]): Line => {
  const size = places.length
  return part.map((n, i) => {
    const group = Math.floor(i / size) * size
    const from = part[group + (places[i - group] ?? 1) - 1]
    return group + size <= part.length && from ? { at: n.at, for: n.for, pitch: from.pitch } : n
  })
}

const changed = (part: Line, variant: Variant, ground: Ground): readonly (readonly [string, Line])[] => {
  const notes = (): readonly HeardNote[] => heardLine(part, ground.timeline, ground.weights)
  switch (variant.by) {
    case 'rhythm': {
      const { value, start } = variant
      const bar = ground.timeline.beat * ground.timeline.beatsInBar
      const first = part[0]?.at ?? 0
      const from = start === null ? first : onBeat(first, bar) + (start - 1) * ground.timeline.beat
      return [[`in ${value}`, regrid(part, Math.round(from), value)]]
    }
    case 'four ways':
      return fourWays(part, ground)
    case 'displace':
      return [
        [
          `${Math.abs(variant.ticks)} ticks ${variant.ticks < 0 ? 'earlier' : 'later'}`,
          part.map((n) => ({ ...n, at: ticks(n.at + variant.ticks) })),
        ],
      ]
    case 'octave':
      return ([12, -12] as const).map((by) => [
        by > 0 ? 'an octave up' : 'an octave down',
        part.map((n) => ({ ...n, pitch: midi(n.pitch + by) })),
      ])
    case 'backwards':
      return [['backwards', atPitches(part, part.map((n) => n.pitch as number).reverse())]]
    case 'inversion':
      return upsideDown(part, ground)
    case 'sequence':
      return [['a sequence', sequence(part, variant, ground)]]
    case 'carry':
      return carried(part, variant.overlay)
    case 'approach':
      return variant.approach === 'none'
        ? [['approach notes taken out', unled(notes())]]
        : [[variant.approach, shortened(ledTo(notes(), variant.approach, ground))]]
    case 'cut':
      return [['cut at the chord, and landed', cut(part, ground)]]
    case 'targets':
      return [['its targets alone', targets(notes())]]
    case 'order':
      return [[`in groups ${variant.places.join(' ')}`, reordered(part, variant.places)]]
  }
}

const meetsOf = (line: Line, { timeline, weights }: Ground): Variation['meets'] =>
  heardLine(line, timeline, weights).flatMap((n, i) =>
    n.strong && n.role === 'chord' ? [{ n: i, bar: n.bar, beat: n.beat, degree: n.degree ?? '' }] : [],
  )

/** Whether every pitch of a line is one that can be sent and played. */
const isPlayable = (line: Line): boolean =>
  line.length > 0 && line.every((n) => n.pitch >= 0 && n.pitch <= 127 && n.at >= 0)

/** A line, or a stretch of it (places from 0, both included), varied; what is not named stays. Source: make page, vary. */
export const varyLine = (
  line: Line,
  from: number,
  to: number,
  variant: Variant,
  ground: Ground,
): readonly Variation[] => {
  const part = line.slice(from, to + 1)
  return changed(part, variant, ground)
    .map(([name, made]) => {
      const whole = within(line, part, made)
      const meets = meetsOf(whole, ground)
      const told = meets?.slice(0, 4).map((m) => `the ${m.degree} on beat ${m.beat} of bar ${m.bar}`) ?? []
      const why = told.length > 0 ? `On strong beats: ${told.join(', ')}.` : 'No chord tone on a strong beat.'
      return { name, line: whole, why, meets: meets ?? [] }
    })
    .filter((v) => isPlayable(v.line))
}
