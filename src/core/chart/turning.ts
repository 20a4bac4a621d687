import { isDominant } from '../chord/chord.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import type { Chain } from './chains.ts'
import type { Judged } from './dominants.ts'
import { type Form, type Hold, upTo } from './holds.ts'
import { nameOf } from './job.ts'

/** Roots above the tonic of turnarounds of four chords. */
const TURNAROUNDS: readonly (readonly number[])[] = [
  [0, 9, 2, 7],
  [4, 9, 2, 7],
  [0, 3, 8, 1],
]
const BY_THIRDS = 2
const FROM_THREE = 1

interface Turnaround {
  readonly from: Hold
  readonly to: Hold
  readonly tonic: number
  readonly shape: number
}

/** Four chords, none after the first longer than a bar, that turn round to a tonic: by their roots above it. */
const turnaroundsIn = ({ holds }: Form, bar: number): readonly Turnaround[] =>
  holds.flatMap((from) => {
    const four = holds.slice(from.at, from.at + 4)
    const to = four[3]
    if (to === undefined || four.slice(1).some((h) => h.ticks > bar)) return []
    const shape = TURNAROUNDS.findIndex((roots) =>
      four.every((h, k) => upTo(from.chord, h.chord) === pitchClass((roots[k] ?? 0) - (roots[0] ?? 0))),
    )
    const { family } = from.chord
    const begins = shape === FROM_THREE ? family === 'minor' : family !== 'diminished' && family !== 'half-diminished'
    const turns = shape === BY_THIRDS || ['minor', 'half-diminished', 'dominant'].includes(four[2]?.chord.family ?? '')
    const leads = isDominant(to.chord) || (shape === BY_THIRDS && to.chord.family === 'major')
    const tonic = pitchClass(from.chord.root.pc - (TURNAROUNDS[shape]?.[0] ?? 0))
    return shape >= 0 && begins && turns && leads ? [{ from, to, tonic, shape }] : []
  })

/** The chords of turnarounds by thirds (I, flat III, flat VI, flat II): they stay in the key they turn to. */
export const turningHome = (form: Form, bar: number): ReadonlySet<number> =>
  new Set(
    turnaroundsIn(form, bar)
      .filter((t) => t.shape === BY_THIRDS)
      .flatMap((t) => [t.from.at + 1, t.from.at + 2, t.from.at + 3]),
  )

const turnarounds = (form: Form, bar: number): readonly Chain[] =>
  turnaroundsIn(form, bar).map(({ from, to, tonic }) => ({
    kind: 'turnaround',
    from,
    to,
    target: form.holds.find((h) => h.chord.root.pc === tonic)?.chord.root.name ?? plainNote(pitchClass(tonic)).name,
  }))

const THIRDS = { 'major-third cycle': [4, 8], 'minor-third cycle': [3, 9] } as const
const CYCLE_FROM = 3

/** Whether a tonic is the same third from the one before and reached by a dominant. */
const goesOn = ({ holds }: Form, step: number, a: Hold | undefined, b: Hold | undefined): boolean => {
  const before = b && holds[b.at - 1]
  return (
    a !== undefined &&
    b !== undefined &&
    before !== undefined &&
    upTo(a.chord, b.chord) === step &&
    isDominant(before.chord)
  )
}

/** Three tonics or more, each the same third from the one before and reached by its V. */
const thirdCycles = (form: Form, judged: readonly Judged[]): readonly Chain[] => {
  const tonics = form.holds.filter((h) => judged[h.at]?.job.kind === 'tonic' && h.chord.family === 'major')
  const cycles: Chain[] = []
  for (const [kind, steps] of Object.entries(THIRDS) as [keyof typeof THIRDS, readonly number[]][])
    for (const step of steps)
      for (let i = 0; i < tonics.length; ) {
        let end = i
        while (goesOn(form, step, tonics[end], tonics[end + 1])) end++
        const [from, to] = [tonics[i] as Hold, tonics[end] as Hold]
        if (end - i + 1 >= CYCLE_FROM) cycles.push({ kind, from, to, target: nameOf(to.chord) })
        i = end + 1
      }
  return cycles
}

/** One root with an inner voice that creeps: the same third kept, the chord changed three times or more. */
const lineCliches = ({ holds }: Form): readonly Chain[] => {
  const found: Chain[] = []
  for (let from = 0; from < holds.length; ) {
    const first = holds[from] as Hold
    const goes = (h: Hold | undefined): boolean =>
      h !== undefined &&
      upTo(first.chord, h.chord) === 0 &&
      h.chord.quality.recipe.third === first.chord.quality.recipe.third
    let to = from
    while (!isDominant(first.chord) && goes(holds[to + 1])) to++
    const different = new Set(holds.slice(from, to + 1).map((h) => h.chord.symbol)).size
    if (different >= CYCLE_FROM) found.push({ kind: 'line cliche', from: first, to: holds[to] as Hold, target: null })
    from = to + 1
  }
  return found
}

/** Chains that turn in place or by thirds: turnarounds, cycles of tonics, one chord with a creeping voice. */
export const turningChains = (form: Form, judged: readonly Judged[], bar: number): readonly Chain[] => [
  ...turnarounds(form, bar),
  ...thirdCycles(form, judged),
  ...lineCliches(form),
]
