import type { Part } from '../codec.ts'

/** Where one is: the chart or the sketch, and the chord in it by bar and beat. */
export interface SpotPart {
  readonly chart: string | null
  /** An unsaved chart typed into the ask bar; the open chart stays behind it. */
  readonly sketch: string | null
  readonly bar: number
  readonly beat: number
}

const atLeast1 = (text: string | null): number => {
  const n = Number(text)
  return text !== null && Number.isFinite(n) && n >= 1 ? n : 1
}

export const SPOT: Part<SpotPart> = {
  read: (query) => ({
    chart: query.get('chart'),
    sketch: query.get('sketch'),
    bar: query.get('bar') === '0' ? 0 : Math.floor(atLeast1(query.get('bar'))),
    beat: atLeast1(query.get('beat')),
  }),
  write: ({ chart, sketch, bar, beat }, query) => {
    if (chart !== null) query.set('chart', chart)
    if (sketch !== null) query.set('sketch', sketch)
    if (bar === 1 && beat === 1) return
    query.set('bar', String(bar))
    query.set('beat', String(beat))
  },
}
