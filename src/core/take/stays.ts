import type { HeardNote } from '../line/heard.ts'
import type { Overlay } from '../material/overlay.ts'
import { isInOverlay, type PlanStep, shareOf } from './plan.ts'

/** Steps that go on with one overlay, or with the home scales: one stay outside or at home. */
export interface Stay {
  readonly from: number
  readonly to: number
  readonly steps: readonly PlanStep[]
  readonly overlay: Overlay | null
  readonly isOut: boolean
  readonly notes: readonly HeardNote[]
}

const goesOn = (before: PlanStep, step: PlanStep): boolean =>
  before.to === step.from && before.isOut === step.isOut && before.overlay?.set === step.overlay?.set

export const staysIn = (steps: readonly PlanStep[]): readonly Stay[] => {
  const stays: PlanStep[][] = []
  for (const step of steps) {
    const last = stays.at(-1)?.at(-1)
    if (last && goesOn(last, step)) stays.at(-1)?.push(step)
    else stays.push([step])
  }
  return stays.map((own) => {
    const [first, last] = [own[0] as PlanStep, own.at(-1) as PlanStep]
    const notes = own.flatMap((s) => s.notes)
    return { from: first.from, to: last.to, steps: own, overlay: first.overlay, isOut: first.isOut, notes }
  })
}

/** Only the overlay explains it: it lies in the overlay and not at home. */
export const isSignOf = (n: HeardNote, { overlay }: Stay): boolean => isInOverlay(n, overlay) && !n.inHome
/** Only home explains it. */
export const isHomeOnly = (n: HeardNote, { overlay }: Stay): boolean => n.inHome && !isInOverlay(n, overlay)
/** Neither explains it. */
export const isForeign = (n: HeardNote, { overlay }: Stay): boolean => !n.inHome && !isInOverlay(n, overlay)

/** How much of the time that was played, 0..1; 0 where nothing was. */
export const shareIn = (notes: readonly HeardNote[], which: (n: HeardNote) => boolean): number =>
  shareOf(notes, which) ?? 0
