import { APPROACH_NAMES, LINE_PATHS, VALUE_NAMES } from '../../../../core/index.ts'
import { choice, counted, partOf, text, type ValueOf } from '../codec.ts'

/** What the Line view does beside reading: making lines, varying one, using one again. */
export const MAKE_TABS = ['off', 'make', 'vary', 'reuse'] as const

/** What a line is made of: what is laid over the chart, the overlay in view over this chord, each chord's scale or tones. */
export const MAKE_FROM = ['laid', 'here', 'home', 'chord'] as const
export type MakeFrom = (typeof MAKE_FROM)[number]

/** What may be done to a line. */
export const VARY_KINDS = [
  ...(['four ways', 'rhythm', 'later', 'earlier', 'octave', 'backwards', 'upside down', 'sequence'] as const),
  ...(['carried over', 'led to', 'without approaches', 'cut and landed', 'targets alone'] as const),
] as const
export type VaryKind = (typeof VARY_KINDS)[number]

/** Which notes are varied: all, those of the bar in view, those from the note in view on. */
export const VARY_WHAT = ['line', 'bar', 'rest'] as const
export type VaryWhat = (typeof VARY_WHAT)[number]

/** Where a line begins: on the beat, off it, before the bar. */
export const MAKE_STARTS = ['1', '1.5', '2', '2.5', '0.5'] as const

/** The figure, the path, the rhythm and the approach of lines to be made, and which draft is in view. */
export const MAKE = partOf(
  {
    make: choice(MAKE_TABS, 'off'),
    makeFrom: choice(MAKE_FROM, 'laid'),
    makeFigure: text,
    makePath: choice(LINE_PATHS, 'up'),
    makeValue: choice(VALUE_NAMES, '1/8'),
    makeStart: choice(MAKE_STARTS, '1'),
    makeApproach: choice(APPROACH_NAMES, 'none'),
    makeLanding: text,
    makeFor: text,
    vary: choice(VARY_KINDS, 'four ways'),
    varyWhat: choice(VARY_WHAT, 'line'),
    draft: counted,
  },
  {
    makeFrom: 'of',
    makeFigure: 'shape',
    makePath: 'goes',
    makeValue: 'value',
    makeStart: 'starts',
    makeApproach: 'led',
    makeLanding: 'lands',
    makeFor: 'for',
    varyWhat: 'what',
  },
)
export type MakePart = ValueOf<typeof MAKE>
