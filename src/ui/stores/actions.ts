import {
  type Chord,
  DEFAULT_SCHOOL,
  degree,
  homeOverlay,
  midi,
  namedTowards,
  ok,
  pitchClass,
  printQuestion,
  type Question,
  type Result,
  readChord,
  readQuestion,
  reverse,
  slipOverlay,
  type TextError,
  transposeQuestion,
} from '../../core/index.ts'
import { inTurn, notePhrase, overlayPhrase } from '../../sound/sound.ts'
import type { StripSpot } from '../figures/strip-layout.ts'
import { type Desk, deskAt } from './desk.ts'
import { NO_FILTERS } from './filters.ts'
import { hear } from './hearing.ts'
import { $kept, keepIdea } from './kept.ts'
import { $place, AT_START, go, type Place } from './place.ts'

/** The desk as it stands now, in the browser. */
export const deskNow = (): Desk | null => {
  const [place, kept] = [$place.get(), $kept.get()]
  return place && kept ? deskAt(place, kept) : null
}

export const goToSpot = (spot: StripSpot): void =>
  go({ bar: spot.spot.bar, beat: spot.beat, over: null, sounds: null, home: null })

const goToIndex = (index: number): void => {
  const spots = deskNow()?.spots ?? []
  const spot = spots[Math.max(0, Math.min(spots.length - 1, index))]
  if (spot && spot.index !== deskNow()?.current?.index) goToSpot(spot)
}

export const moveChord = (by: 1 | -1): void => {
  const current = deskNow()?.current
  if (current) goToIndex(current.index + by)
}
export const moveBar = (by: 1 | -1): void => {
  const desk = deskNow()
  const bar = (desk?.current?.spot.bar ?? 1) + by
  const first = desk?.spots.find((s) => s.spot.bar === bar)
  if (first) goToSpot(first)
}
export const moveToStart = (): void => goToIndex(0)
export const moveToEnd = (): void => goToIndex(Number.MAX_SAFE_INTEGER)

/** Moves the overlay by a half step; the address says so. */
export const slip = (by: 1 | -1): void => {
  const desk = deskNow()
  const reading = desk?.current?.reading
  if (!desk?.concert || !reading) return
  const slipped = slipOverlay(desk.concert.overlay, by, homeOverlay(reading.place.home.first).notes)
  go({ over: namedTowards(slipped, desk.settings.direction).name })
}

const mannerOf = ({ settings }: Desk) => ({ as: settings.hearAs, tempo: settings.hearTempo })

export const hearOverlay = (): void => {
  const desk = deskNow()
  const concert = desk?.concert
  if (concert && desk) void hear(overlayPhrase(concert.overlay, concert.chord, mannerOf(desk)))
}

/** One note of the overlay, by its place in it. */
export const hearNote = (index: number): void => {
  const concert = deskNow()?.concert
  const note = concert?.overlay.notes[index]
  if (concert && note) void hear(notePhrase(note.pc, concert.chord))
}
/** Written pitches one after another over the chord. */
export const hearPitches = (pitches: readonly number[]): void => {
  const desk = deskNow()
  if (!desk?.concert) return
  const down = desk.instrument.written.semitones
  void hear(
    inTurn(
      pitches.map((p) => midi(p - down)),
      desk.concert.chord,
      desk.settings.hearTempo,
    ),
  )
}

export const keep = (): void => {
  const desk = deskNow()
  if (!desk?.concert || !desk.current) return
  const { overlay, chord, next } = desk.concert
  const chartId = desk.isSketch ? null : ($kept.get()?.chart?.id ?? null)
  const spot = chartId === null ? { bar: null, beat: null } : { bar: desk.current.spot.bar, beat: desk.current.beat }
  void keepIdea({ overlay: overlay.name, chord: chord.symbol, next: next?.symbol ?? null, chartId, ...spot })
}

/** Whether it is asked of the very chord one stands on. */
const isHere = (desk: Desk | null, q: { readonly chord: Chord; readonly next: Chord | null }): boolean =>
  desk?.concert?.chord.symbol === q.chord.symbol && (q.next === null || desk.concert.next?.symbol === q.next.symbol)

const sketch = (text: string, over: string | null, sounds: string | null, more: Partial<Place> = {}): void =>
  go({ view: 'desk', sketch: text, ...AT_START, over, sounds, ...more })

/** A sketch of one chord, or of it and the one it goes to. */
const sketchText = (chord: string, next: string | null): string => `| ${chord} |${next === null ? '' : ` ${next} |`}`

/** Lays an overlay over one chord by itself, both in concert pitch. */
export const laySketch = (chord: string, over: string): void => sketch(sketchText(chord, null), over, null)

/** Carries a question out, in concert pitch. An overlay stays at the open spot where it was asked of that very chord. */
const carryOut = (q: Question): void => {
  switch (q.kind) {
    case 'reading': {
      const sounds = q.sounding?.symbol ?? null
      if (isHere(deskNow(), q)) return go({ view: 'desk', over: q.overlay.name, sounds })
      return sketch(sketchText(q.chord.symbol, q.next?.symbol ?? null), q.overlay.name, sounds)
    }
    case 'material':
      return go({ view: 'desk', over: q.overlay.name })
    case 'chord':
      return sketch(sketchText(q.chord.symbol, null), null, null)
    case 'chart':
      return sketch(q.text.trim(), null, null)
    case 'pairs':
    case 'overlays': {
      const hold = q.kind === 'overlays' ? q.hold.map((d) => pitchClass(degree(d).semitones)) : []
      const families = q.kind === 'overlays' ? q.families : null
      const to: Partial<Place> =
        q.kind === 'pairs'
          ? { view: 'pairs', part: 'map' }
          : { view: 'desk', filters: { ...NO_FILTERS, hold, families } }
      if (isHere(deskNow(), q)) return go(to)
      return sketch(sketchText(q.chord.symbol, q.next?.symbol ?? null), null, null, to)
    }
  }
}

/**
 * Asks in the player's written pitch; the place, the address and every request are in concert pitch. Gives the question
 * as understood (written), or the error with its place in the text.
 */
export const ask = (text: string): Result<string, TextError> => {
  const read = readQuestion(text, deskNow()?.settings.school ?? DEFAULT_SCHOOL)
  if (!read.ok) return read
  const desk = deskNow()
  if (read.value.kind === 'material' && !desk?.concert)
    return {
      ok: false,
      error: { code: 'empty', at: text.length, found: '', expected: ['over and a chord, such as over Eb7'] },
    }
  carryOut(transposeQuestion(read.value, reverse(desk?.instrument.written ?? { letters: 0, semitones: 0 })))
  return ok(printQuestion(read.value))
}

/** Lays a kept idea over its chord again: at its spot where the chart is open, else in a sketch. */
export const layIdea = (idea: {
  overlay: string
  chord: string
  next: string | null
  chartId: string | null
  bar: number | null
  beat: number | null
}): void => {
  if (idea.chartId !== null && idea.chartId === $kept.get()?.chart?.id && idea.bar !== null && idea.beat !== null)
    return go({ view: 'desk', sketch: null, bar: idea.bar, beat: idea.beat, over: idea.overlay, sounds: null })
  const chord = readChord(idea.chord)
  if (chord.ok) sketch(sketchText(idea.chord, idea.next), idea.overlay, null)
}

export const closeSketch = (): boolean => {
  if ($place.get()?.sketch === null) return false
  go({ sketch: null, ...AT_START })
  return true
}
