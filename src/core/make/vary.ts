import { beatTicks } from '../chart/chart.ts'
import { type HeardNote, heardLine } from '../line/heard.ts'
import { endOf, type Line, type LineNote, lineOf } from '../line/line.ts'
import type { Overlay } from '../material/overlay.ts'
import { EMPTY_SET, midi, ticks } from '../pitch/units.ts'
import type { Weights } from '../reading/weights.ts'
import { momentOf } from '../time/bars.ts'
import { barRound, soundingAt, type Timeline } from '../time/timeline.ts'
import { type ApproachName, approachTo } from './approach.ts'
import { cutAt } from './places.ts'
import { VALUES, type ValueName } from './rhythm.ts'
import { atPitches, carried, homeAt, type Named, sequence, upsideDown } from './vary-pitches.ts'

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

/** A shift in words: `half a beat`, `2 beats`. */
const beatsOf = (shift: number, { beat }: Timeline): string => {
  const beats = Math.abs(shift) / beat
  const part = [1, 2, 3, 4, 6].find((n) => Math.abs(beats * n - 1) < 1e-6)
  if (part !== undefined)
    return (
      ['a beat', 'half a beat', 'a third of a beat', 'a quarter of a beat', '', 'a sixth of a beat'][part - 1] ?? ''
    )
  return `${Math.round(beats * 100) / 100} beats`
}

/**
 * What stands round a stretch stays, and ends the stretch where it begins; where the stretch `writesOver` what comes
 * after, that gives way.
 */
const within = (line: Line, part: Line, changed: Line, writesOver: boolean): Line => {
  const first = part[0]?.at ?? 0
  const last = part.at(-1)?.at ?? 0
  const end = writesOver ? changed.reduce((end, n) => Math.max(end, endOf(n)), last + 1) : last + 1
  const next = line.find((n) => n.at >= end)?.at ?? Number.POSITIVE_INFINITY
  const own = changed
    .filter((n) => n.at < next && n.at >= 0)
    .map((n) => (endOf(n) > next ? { ...n, for: ticks(next - n.at) } : n))
  const begin = Math.min(first, own[0]?.at ?? first)
  const before = line
    .filter((n) => n.at < first && n.at < begin)
    .map((n) => (endOf(n) > begin ? { ...n, for: ticks(begin - n.at) } : n))
  return lineOf([...before, ...own, ...line.filter((n) => n.at >= end)])
}

const regrid = (part: Line, from: number, value: ValueName): Line =>
  part.map((n, i) => ({ at: ticks(from + i * VALUES[value]), for: ticks(VALUES[value]), pitch: n.pitch }))

/** The beat that a moment stands on or after. */
const onBeat = (at: number, timeline: Timeline): number => {
  const bar = barRound(timeline, at)
  const [from, beat] = bar ? [bar.from, beatTicks(bar.metre)] : [0, timeline.beat]
  return from + Math.floor((at - from) / beat) * beat
}

const fourWays = (part: Line, { timeline }: Ground): readonly Named[] => {
  const from = onBeat(part[0]?.at ?? 0, timeline)
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

const isLed = (n: HeardNote): boolean => n.role === 'chord' && n.onBeat

const ledTo = (notes: readonly HeardNote[], approach: ApproachName, ground: Ground): Line =>
  notes.flatMap((n, i): readonly LineNote[] => {
    const before = notes[i - 1]
    const plain = { at: n.at, for: n.for, pitch: n.pitch }
    if (!isLed(n) || !before || endOf(before) < n.at) return [plain]
    const led = approachTo(approach, n.pitch, homeAt(ground.timeline, n.at), EMPTY_SET)
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

const changed = (part: Line, variant: Variant, ground: Ground): readonly Named[] => {
  const notes = (): readonly HeardNote[] => heardLine(part, ground.timeline, ground.weights)
  switch (variant.by) {
    case 'rhythm': {
      const { value, start } = variant
      const first = part[0]?.at ?? 0
      const bar = barRound(ground.timeline, first)
      const from = start === null || !bar ? first : momentOf(bar, start)
      return [[`in ${value}`, regrid(part, Math.round(from), value)]]
    }
    case 'four ways':
      return fourWays(part, ground)
    case 'displace':
      return [
        [
          `${beatsOf(variant.ticks, ground.timeline)} ${variant.ticks < 0 ? 'earlier' : 'later'}`,
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
      return upsideDown(part, ground.timeline)
    case 'sequence':
      return [
        sequence(
          part,
          variant.semitones === null ? { steps: variant.steps ?? 1 } : { semitones: variant.semitones },
          variant.times,
          ground.timeline,
        ),
      ]
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
      const whole = within(line, part, made, variant.by === 'sequence')
      const meets = meetsOf(whole, ground)
      const told = meets?.slice(0, 4).map((m) => `the ${m.degree} on beat ${m.beat} of bar ${m.bar}`) ?? []
      const why = told.length > 0 ? `On strong beats: ${told.join(', ')}.` : 'No chord tone on a strong beat.'
      return { name, line: whole, why, meets: meets ?? [] }
    })
    .filter((v) => isPlayable(v.line))
}
