import { type Fret, LAST_FRET, type Position, type Tuning } from '../../core/index.ts'

/** Where strings, frets and places lie, in px. The lowest string is at the bottom; left-handed necks are mirrored. */
export interface FretboardLayout {
  readonly width: number
  readonly height: number
  readonly strings: readonly { readonly y: number; readonly thick: number }[]
  /** Fret wires, the nut among them where it is in view. */
  readonly wires: readonly { readonly x: number; readonly nut: boolean }[]
  readonly numbers: readonly { readonly x: number; readonly fret: number; readonly dot: boolean }[]
  readonly at: (f: Pick<Fret, 'string' | 'fret'>) => { readonly x: number; readonly y: number }
  readonly tab: { readonly w: number; readonly h: number }
}

const DOTS = [3, 5, 7, 9, 12, 15, 17]
/** Room left of the nut for open strings, in frets. */
const OPEN = 1
const NUMBERS = 24
const MOST_GAP = 58

export const layoutFretboard = (
  tuning: Tuning,
  { from, to }: Position,
  leftHanded: boolean,
  width: number,
  height: number,
): FretboardLayout => {
  const open = from === 0 ? OPEN : 0
  const cells = to - Math.max(from, 1) + 1
  const cell = width / (cells + open)
  const gap = Math.min(MOST_GAP, (height - NUMBERS) / tuning.length)
  const mirrored = (x: number): number => (leftHanded ? width - x : x)
  const wireX = (n: number): number => mirrored(open * cell + n * cell)
  const middle = (fret: number): number =>
    mirrored(fret === 0 ? (open * cell) / 2 : open * cell + (fret - Math.max(from, 1) + 0.5) * cell)
  const first = Math.max(from, 1)
  return {
    width,
    height: gap * tuning.length + NUMBERS,
    strings: tuning.map((_, s) => ({ y: gap * (tuning.length - s - 0.5), thick: 1 + (tuning.length - s) * 0.45 })),
    wires: Array.from({ length: cells + 1 }, (_, n) => ({ x: wireX(n), nut: n === 0 && from === 0 })),
    numbers: Array.from({ length: cells }, (_, n) => ({
      x: middle(first + n),
      fret: first + n,
      dot: DOTS.includes(first + n) && first + n <= LAST_FRET,
    })),
    at: ({ string, fret }) => ({ x: middle(fret), y: gap * (tuning.length - string - 0.5) }),
    tab: { w: Math.min(38, cell - 3), h: Math.min(40, gap - 3) },
  }
}
