import {
  type Chord,
  DEFAULT_SCHOOL,
  degree,
  ok,
  pitchClass,
  printQuestion,
  type Question,
  type Result,
  readChord,
  readQuestion,
  reverse,
  type TextError,
  transposeQuestion,
} from '../../../core/index.ts'
import { $address, type Address, AT_START, choose, go } from '../address/address.ts'
import { NO_FILTERS } from '../address/filters.ts'
import { $kept } from '../kept/kept.ts'
import { say } from '../page/notices.ts'
import { $openChart, type OpenChart } from './open-chart.ts'

/** Whether it is asked of the very chord one stands on. */
const isHere = (openChart: OpenChart | null, q: { readonly chord: Chord; readonly next: Chord | null }): boolean =>
  openChart?.concert?.chord.symbol === q.chord.symbol &&
  (q.next === null || openChart.concert.next?.symbol === q.next.symbol)

const sketch = (text: string, over: string | null, sounds: string | null, more: Partial<Address> = {}): void =>
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
      if (isHere($openChart.get(), q)) return go({ view: 'desk', over: q.overlay.name, sounds, filters: NO_FILTERS })
      return sketch(sketchText(q.chord.symbol, q.next?.symbol ?? null), q.overlay.name, sounds)
    }
    case 'material':
      return go({ view: 'desk', over: q.overlay.name, filters: NO_FILTERS })
    case 'chord':
      return sketch(sketchText(q.chord.symbol, null), null, null)
    case 'chart':
      return sketch(q.text.trim(), null, null)
    case 'pairs':
    case 'overlays': {
      const hold = q.kind === 'overlays' ? q.hold.map((d) => pitchClass(degree(d).semitones)) : []
      const families = q.kind === 'overlays' ? q.families : null
      const to: Partial<Address> =
        q.kind === 'pairs'
          ? { view: 'pairs', part: 'map' }
          : { view: 'desk', filters: { ...NO_FILTERS, hold, families } }
      if (isHere($openChart.get(), q)) return go(to)
      return sketch(sketchText(q.chord.symbol, q.next?.symbol ?? null), null, null, to)
    }
  }
}

/**
 * Asks in the player's written pitch; the place, the address and every request are in concert pitch. Gives the question
 * as understood (written), or the error with its place in the text.
 */
export const ask = (text: string): Result<string, TextError> => {
  const read = readQuestion(text, $openChart.get()?.settings.school ?? DEFAULT_SCHOOL)
  if (!read.ok) return read
  const openChart = $openChart.get()
  if (read.value.kind === 'material' && !openChart?.concert)
    return {
      ok: false,
      error: { code: 'empty', at: text.length, found: '', expected: ['over and a chord, such as over Eb7'] },
    }
  carryOut(transposeQuestion(read.value, reverse(openChart?.instrument.written ?? { letters: 0, semitones: 0 })))
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
  if ($address.get()?.sketch === null) return false
  choose('leaving the sketch', { sketch: null, ...AT_START })
  say('The sketch stays among the recent ones, on Charts.', 'undo')
  return true
}
