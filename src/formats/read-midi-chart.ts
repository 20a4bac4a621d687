import {
  barTicks,
  beatTicks,
  chordNamed,
  foreignTo,
  type Key,
  lastBegun,
  type Metre,
  MOST,
  type NamedChord,
  type Note,
  nameChord,
  type PcSet,
  type PitchClass,
  type Played,
  pitchClass,
  printCount,
  type Result,
  readMetre,
  setOf,
  sizeOf,
  ticks,
  UNKNOWN_CHORD,
  union,
} from '../core/index.ts'
import {
  assemble,
  type FoundBar,
  type FoundChord,
  type Imported,
  type LeftOut,
  type Refusal,
  refuse,
} from './assemble.ts'
import { keyOfFifths, scaleOfFifths } from './fifths.ts'
import { type FoundVoice, voicesIn } from './line-midi.ts'
import { type MidiTrackRead, midiIn } from './midi-file.ts'

/** Notes of one voice that begin together. */
interface Struck {
  readonly at: number
  readonly set: PcSet
}

/** What begins within so many ticks is struck together. */
const TOGETHER = 90

const struckIn = ({ notes }: Pick<FoundVoice, 'notes'>): readonly Struck[] => {
  const groups: { at: number; pcs: number[] }[] = []
  for (const n of [...notes].sort((a, b) => a.at - b.at)) {
    const last = groups.at(-1)
    if (last && n.at - last.at <= TOGETHER) last.pcs.push(pitchClass(n.pitch))
    else groups.push({ at: n.at, pcs: [pitchClass(n.pitch)] })
  }
  const all = groups.map(({ at, pcs }) => ({ at, set: setOf(pcs) }))
  const many = all.filter((s) => sizeOf(s.set) > 1)
  // A voice that mostly strikes chords may strike two notes of one; any other must strike three.
  return many.length * 2 >= all.length ? many : many.filter((s) => sizeOf(s.set) > 2)
}

interface FileBar {
  readonly from: number
  readonly metre: Metre
  readonly key: Key | null
  readonly fifths: number
  readonly section: string | null
}

interface Moment<V> {
  readonly at: number
  readonly value: V
}
type Event = MidiTrackRead[number]

/** What the tracks say on the way, in time. */
const saidIn = <V>(
  tracks: readonly MidiTrackRead[],
  scale: number,
  of: (event: Event) => V | null,
): readonly Moment<V>[] =>
  tracks
    .flatMap((track) => {
      let at = 0
      return track.flatMap((event): readonly Moment<V>[] => {
        at += event.deltaTime
        const value = of(event)
        return value === null ? [] : [{ at: at * scale, value }]
      })
    })
    .sort((a, b) => a.at - b.at)

const metreOf = (e: Event): Metre | null => {
  const read = e.type === 'timeSignature' ? readMetre(`${e.numerator}/${e.denominator}`) : null
  return read?.ok ? read.value : null
}
const keyOf = (e: Event) =>
  e.type === 'keySignature' ? { fifths: e.key, key: keyOfFifths(e.key, e.scale === 1 ? 'minor' : 'major') } : null
const sectionOf = (e: Event): string | null =>
  e.type === 'marker' ? e.text.replace(/\s+/g, ' ').trim().slice(0, 40) || null : null

/** What holds at a moment, of what was said up to it. */
const heldAt = <V>(said: readonly Moment<V>[], at: number): V | undefined => {
  const last = said[lastBegun(said.length, (i) => said[i]?.at ?? 0, at + 1)]
  return last && last.at <= at + 1 ? last.value : undefined
}

const FOUR: Metre = { beats: 4, unit: 4 }

/** The bars of a file up to a moment; null where they are more than a chart has. */
const barsIn = (tracks: readonly MidiTrackRead[], scale: number, end: number): readonly FileBar[] | null => {
  const metres = saidIn(tracks, scale, metreOf)
  const keys = saidIn(tracks, scale, keyOf)
  const sections = saidIn(tracks, scale, sectionOf)
  const bars: FileBar[] = []
  let next = 0
  for (let from = 0; from < end; ) {
    if (bars.length >= MOST.bars) return null
    const metre = heldAt(metres, from) ?? FOUR
    const { key = null, fifths = 0 } = heldAt(keys, from) ?? {}
    const to = from + barTicks(metre)
    while ((sections[next]?.at ?? Infinity) < from - 1) next++
    const begun = sections[next]
    const section = begun && begun.at < to - 1 ? begun.value : null
    bars.push({ from, metre, key, fifths, section })
    from = to
  }
  return bars
}

/** All that a chord is heard by: what is struck, and every note, for the bass. */
interface Heard {
  readonly struck: readonly Struck[]
  readonly notes: readonly Played[]
}

/** What sounds from one moment to another: the chords struck there and the lowest note at its beginning. */
const soundingIn = ({ struck, notes }: Heard, from: number, to: number, beat: number) => {
  const sets = struck.filter((s) => s.at >= from - TOGETHER && s.at < to - TOGETHER).map((s) => s.set)
  const begun = notes.filter((n) => n.at < from + beat / 2 && n.at + n.for > from + beat / 8 && n.at > from - 8 * beat)
  const lowest = begun.reduce((least, n) => Math.min(least, n.pitch), Infinity)
  const bass: PitchClass | null = lowest < Infinity ? pitchClass(lowest) : null
  const set = sets.reduce(union, setOf(bass === null ? [] : [bass]))
  return { set, bass, isStruck: sets.length > 0 }
}
interface Proposed {
  readonly at: number
  readonly named: NamedChord
  readonly bass: PitchClass | null
}

/** What a second chord in a bar costs: more where nothing is struck as it begins, a little where that is not the middle. */
const SECOND = { chord: 1.8, silent: 0.3, uneven: 0.1 } as const

/** The chords of a bar: of all ways to cut it at its beats, the one against whose chords least speaks. */
const proposedIn = (heard: Heard, from: number, beats: number, beat: number): readonly Proposed[] => {
  const named = (first: number, end: number): Proposed | null => {
    const sounding = soundingIn(heard, from + first * beat, from + end * beat, beat)
    const chord = sounding.isStruck ? nameChord(sounding) : null
    return chord && { at: from + first * beat, named: chord, bass: sounding.bass }
  }
  const cutAt = (at: number): number => {
    const isStruck = heard.struck.some((s) => Math.abs(s.at - from - at * beat) <= TOGETHER)
    return SECOND.chord + (isStruck ? 0 : SECOND.silent) + (at * 2 === beats ? 0 : SECOND.uneven)
  }
  /** By where it ends: the least that speaks against all so far, and the chords of that. */
  const best: { readonly against: number; readonly chords: readonly Proposed[] }[] = [{ against: 0, chords: [] }]
  for (let end = 1; end <= beats; end++) {
    best[end] = { against: Infinity, chords: [] }
    for (let first = 0; first < end; first++) {
      const before = best[first] as (typeof best)[number]
      const chord = before.against < Infinity ? named(first, end) : null
      if (!chord) continue
      const against = before.against + chord.named.against + (first > 0 ? cutAt(first) : 0)
      if (against < (best[end]?.against ?? Infinity)) best[end] = { against, chords: [...before.chords, chord] }
    }
  }
  return best[beats]?.chords ?? []
}

/** For each bar what is struck in it, and the notes that begin in it or sound on from the two before. */
const byBars = ({ struck, notes }: Heard, bars: readonly FileBar[]): readonly Heard[] => {
  const all = bars.map((): { struck: Struck[]; notes: Played[] } => ({ struck: [], notes: [] }))
  const barOf = (at: number): number => lastBegun(bars.length, (i) => bars[i]?.from ?? 0, at)
  for (const s of struck) all[barOf(s.at + TOGETHER)]?.struck.push(s)
  for (const n of notes) {
    const first = barOf(n.at)
    for (let i = first; i <= first + SOUNDS_ON && (i === first || (bars[i]?.from ?? Infinity) < n.at + n.for); i++)
      all[i]?.notes.push(n)
  }
  return all
}
const SOUNDS_ON = 2

/** What is struck in the last half beat of a bar and fits its chord badly is the next bar's chord, played early. */
const withEarly = (heard: Heard, bars: readonly FileBar[]): Heard => {
  const own = byBars(heard, bars)
  const struck = own.flatMap((inBar, i) => {
    const { from, metre } = bars[i] as FileBar
    const [to, beat] = [from + barTicks(metre), beatTicks(metre)]
    return inBar.struck.map((s) => {
      if (s.at >= to - TOGETHER || s.at < to - beat * LATE) return s
      const before = soundingIn(inBar, from, s.at, beat)
      const chord = before.isStruck ? nameChord(before) : null
      return chord && foreignTo(chord, s.set) === 0 ? s : { ...s, at: to }
    })
  })
  return { ...heard, struck }
}

/** The second half of a beat, swung or not. */
const LATE = 0.55

const MOST_NOTES = 100_000

/** Beyond this nobody would call it that. */
const DOUBTFUL = 6

/**
 * Proposes a chart for a MIDI file that has chords in it: by what is struck together and the bass under it, bar by bar
 * and beat by beat, with its metres, keys and sections. Refused where notes come one at a time.
 */
export const readMidiChart = (bytes: Uint8Array): Result<Imported, Refusal> => {
  const opened = midiIn(bytes)
  if (!opened.ok) return opened
  const { file, scale } = opened.value
  const { pitched } = voicesIn(file.tracks, scale)
  const notes = pitched.flatMap((v) => v.notes)
  if (notes.length > MOST_NOTES) return refuse(`It has more than ${printCount(MOST_NOTES)} notes.`)
  const byVoice = pitched.flatMap(struckIn).sort((a, b) => a.at - b.at)
  const isChord = (s: Struck): boolean => sizeOf(s.set) > 2
  // Voices that have one note at a time may make chords together.
  const struck = byVoice.some(isChord) ? byVoice : struckIn({ notes })
  if (!struck.some(isChord))
    return refuse('The file has no chords: its notes come one at a time. They are read in Line.', 'no_chords')
  const end = notes.reduce((most, n) => Math.max(most, n.at + n.for), 0)
  const bars = barsIn(file.tracks, scale, end - TOGETHER)
  if (!bars) return refuse(`It goes on for more than ${printCount(MOST.bars)} bars.`)
  const heard = byBars(withEarly({ struck, notes }, bars), bars)
  const unnamed: number[] = []
  let last: Proposed | null = null
  const found = bars.map((bar, i): FoundBar => {
    const { from, metre, key, fifths, section } = bar
    const spelled = (pc: PitchClass): Note | null => scaleOfFifths(fifths).find((n) => n.pc === pc) ?? null
    const chords = proposedIn(heard[i] as Heard, from, metre.beats, beatTicks(metre)).map((p): FoundChord => {
      const at = ticks(p.at - from)
      if (p.named.against > DOUBTFUL) {
        unnamed.push(i + 1)
        return { at, chord: UNKNOWN_CHORD }
      }
      const stays: boolean = last !== null && last.named.root === p.named.root && last.named.quality === p.named.quality
      const bass: PitchClass | null = stays ? (last as Proposed).bass : p.bass
      last = { ...p, bass }
      return { at, chord: chordNamed(p.named, bass, key ? spelled : undefined) }
    })
    return { section, opens: false, closes: false, endings: [], metre, key, length: barTicks(metre), chords }
  })
  const [first, second] = found
  const isPickup = first && second && first.length < second.length
  const tempo = saidIn(file.tracks, scale, (e) => (e.type === 'setTempo' ? e.microsecondsPerBeat : null))[0]?.value
  const leftOut: readonly LeftOut[] = [
    { what: 'the notes', why: 'a chart holds chord symbols only' },
    { what: 'how sure it is', why: 'chords are proposed from what is struck together: look them through' },
    ...unnamed.map((bar) => ({
      what: `what sounds in bar ${bar}`,
      why: 'it is no chord known here: a ? stands there',
    })),
  ]
  return assemble(
    {
      title: 'Untitled',
      quarters: 60_000_000 / (tempo ?? 500_000),
      bars: isPickup ? [{ ...first, metre: second.metre }, ...found.slice(1)] : found,
    },
    leftOut,
  )
}
