import type { Metre } from '../chart/chart.ts'
import type { Feel } from '../chart/feel.ts'

/**
 * One bar or part of a bar for every part: four signs to a beat, a space between beats, `.` for nothing.
 * Drums: `x`, and `X` louder. Chords: `x` the chord that sounds, `n` the next one early. Bass: `1` root or bass note,
 * `5`, `8`, `w` a walking note, `a` a note that leads into the next bar. Several rows take turns, bar by bar.
 */
export interface Cell {
  readonly bass: readonly string[]
  readonly chords: readonly string[]
  readonly ride?: readonly string[]
  readonly hat?: readonly string[]
  readonly drum?: readonly string[]
  readonly rim?: readonly string[]
}

export interface Groove {
  /** Of a group of four beats; a group of three or two is its beginning, unless there is a row of its own. */
  readonly four: Cell
  readonly three?: Cell
  /** Which notes are played late: the second of each pair of eighths, or of sixteenths. */
  readonly swung: 'eighths' | 'sixteenths' | null
  /** Where the second of a pair falls, per cent of the pair: 50 is even, 67 a triplet. */
  readonly swing: number
  /** Chords last until the next one instead of being short. */
  readonly held: boolean
}

const JAZZ_WALTZ: Cell = {
  bass: ['1... .... w...', 'w... w... w...'],
  chords: ['x... ..x. ....', '.... x... ....', 'x... .... ..n.'],
  ride: ['X... x.x. x...'],
  hat: ['.... X... ....'],
}
const SWING: Cell = {
  bass: ['w... w... w... w...'],
  chords: [
    'x... ..x. .... ....',
    '..x. .... ..x. ....',
    '.... ..x. .... x...',
    'x... .... .... ..n.',
    '.... x... ..x. ....',
  ],
  ride: ['x... X.x. x... X.x.'],
  hat: ['.... X... .... X...'],
}

export const GROOVES: Readonly<Record<Feel, Groove>> = {
  swing: { four: SWING, three: JAZZ_WALTZ, swung: 'eighths', swing: 64, held: false },
  waltz: { four: SWING, three: JAZZ_WALTZ, swung: 'eighths', swing: 62, held: false },
  straight: {
    four: {
      bass: ['1... ..1. 5... ..a.', '1... .... 5... w...'],
      chords: ['x... ..x. .... ....', '.... x... ..x. ....'],
      ride: ['X.x. x.x. X.x. x.x.'],
      hat: ['.... x... .... x...'],
      drum: ['X... .... x.x. ....'],
      rim: ['.... x... .... x...'],
    },
    swung: null,
    swing: 50,
    held: true,
  },
  bossa: {
    four: {
      bass: ['1... ..5. 5... ..a.', '1... ..5. 5... ..1.'],
      chords: ['x... x... ..x. ..n.', '..x. ..x. .... x...'],
      hat: ['X.x. x.x. X.x. x.x.'],
      drum: ['x... ..x. x... ..x.'],
      rim: ['X... ..x. .... x...', '.... x... ..x. ....'],
    },
    swung: null,
    swing: 50,
    held: true,
  },
  samba: {
    four: {
      bass: ['1... .... 5... ..1.', '1... ..1. 5... ..a.'],
      chords: ['x.x. ..x. ..x. ..n.', '..x. ..x. x... ..n.'],
      hat: ['X.x. x.X. X.x. x.X.'],
      drum: ['x... .... X... ....'],
      rim: ['x... x... x.x. ..x.', '..x. ..x. ..x. x...'],
    },
    swung: null,
    swing: 50,
    held: false,
  },
  funk: {
    four: {
      bass: ['1... ..1. ..5. 8.a.', '1..1 .... 5.8. ..a.'],
      chords: ['..x. .... .x.x ....', '.... ..x. .... x..n'],
      hat: ['X.x. X.x. X.x. X.xx'],
      drum: ['X... ..X. ..X. ....', 'X..x .... ..X. .x..'],
      rim: ['.... X... .... X..x'],
    },
    swung: 'sixteenths',
    swing: 55,
    held: false,
  },
  'free drone': {
    four: { bass: ['1... .... .... ....'], chords: ['x... .... .... ....'] },
    swung: null,
    swing: 50,
    held: true,
  },
}

const TEN = [4, 3, 3]

/** How a bar falls into groups of four, three and two beats: 7/4 as four and three, 5/4 as three and two. */
export const groupsOf = ({ beats, unit }: Metre): readonly number[] => {
  if (beats === 10) return TEN
  if (beats % 3 === 0 && (unit >= 8 || beats <= 6)) return Array.from({ length: beats / 3 }, () => 3)
  if (beats === 5) return [3, 2]
  const fours = Math.floor(beats / 4)
  const [rest, whole] = beats % 4 === 1 ? [[3, 2], fours - 1] : beats % 4 === 0 ? [[], fours] : [[beats % 4], fours]
  return beats === 1 ? [1] : [...Array.from({ length: whole }, () => 4), ...rest]
}

const SLOTS_PER_BEAT = 4

/** One sign of a row, by its place in the bar in quarters of a beat. */
export interface Hit {
  readonly slot: number
  readonly sign: string
}

export type CellPart = keyof Cell

/** What one part plays in a bar of a metre: the groups one after another; `turn` picks among the rows. */
export const hitsOf = (groove: Groove, part: CellPart, metre: Metre, turn: number): readonly Hit[] => {
  let start = 0
  return groupsOf(metre).flatMap((beats) => {
    const cell = beats === 3 && groove.three ? groove.three : groove.four
    const rows = cell[part] ?? []
    const row = (rows[turn % rows.length] ?? '').replaceAll(' ', '').slice(0, beats * SLOTS_PER_BEAT)
    const from = start
    start += beats * SLOTS_PER_BEAT
    return [...row].flatMap((sign, i) => (sign === '.' ? [] : [{ slot: from + i, sign }]))
  })
}
