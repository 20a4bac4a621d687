import type { KeptStep } from './report.ts'
import { type At, sameAt } from './slots.ts'

/** A chord of a chart that something is laid over: its place, its length in beats, its symbol. */
export interface LaidPlace extends At {
  readonly beats: number
  readonly chord: string
}

const CLOSE = 1e-6
const beatOf = (step: KeptStep): number => step.beat ?? 1
const covers = (step: KeptStep, { bar, beat }: At): boolean =>
  step.bar === bar &&
  beatOf(step) <= beat + CLOSE &&
  (step.beats === undefined || beat < beatOf(step) + step.beats - CLOSE)

/** The step of a route that sounds at a place: the last that began there or before, in the same bar, and lasts so long. */
export const stepAt = (steps: readonly KeptStep[], at: At): KeptStep | undefined =>
  steps.filter((s) => covers(s, at)).at(-1)

/** What is laid at a place; null where nothing is. */
export const laidAt = (steps: readonly KeptStep[], at: At): string | null => stepAt(steps, at)?.overlay ?? null

const inOrder = (steps: readonly KeptStep[]): readonly KeptStep[] =>
  [...steps].sort((a, b) => (a.bar ?? 0) - (b.bar ?? 0) || beatOf(a) - beatOf(b))

const outside = (steps: readonly KeptStep[], { bar, beat, beats }: At & { readonly beats: number }) =>
  steps.filter((s) => s.bar !== bar || beatOf(s) < beat - CLOSE || beatOf(s) > beat + beats - CLOSE)

/** A route with a step laid over one chord by hand, or with nothing laid over it. */
export const layStep = (
  steps: readonly KeptStep[],
  place: LaidPlace,
  laid: Pick<KeptStep, 'overlay' | 'fade' | 'landing'>,
): readonly KeptStep[] => {
  const rest = outside(steps, place)
  const { bar, beat, beats, chord } = place
  if (laid.overlay === null && laidAt(rest, place) === null) return rest
  const hand = laid.overlay === null ? {} : { byHand: true }
  return inOrder([...rest, { bar, beat, beats, chord, ...laid, ...hand }])
}

/** Steps that the player laid by hand stay when a chain is taken: it was planned round them. */
const byHandAt = (steps: readonly KeptStep[], step: KeptStep): boolean =>
  steps.some((s) => s.byHand && s.bar === step.bar && beatOf(s) === beatOf(step) && s.overlay === step.overlay)

/** A route with a whole chain taken into it: what lay where the chain goes gives way. */
export const layChain = (steps: readonly KeptStep[], chain: readonly KeptStep[]): readonly KeptStep[] => {
  const bars = new Set(chain.map((s) => s.bar))
  const marked = chain.map((s) => (byHandAt(steps, s) ? { ...s, byHand: true } : s))
  return inOrder([...steps.filter((s) => !bars.has(s.bar)), ...marked])
}

/** The overlays laid by hand, which a planning keeps. */
export const handLaid = (steps: readonly KeptStep[]): readonly (At & { readonly overlay: string })[] =>
  steps.flatMap(({ bar, beat = 1, overlay, byHand }) =>
    byHand && overlay !== null && bar !== undefined ? [{ bar, beat, overlay }] : [],
  )

/** The same steps, one of them laid by hand or left to the planning. */
export const markByHand = (steps: readonly KeptStep[], at: At, byHand: boolean): readonly KeptStep[] =>
  steps.map((s) => (s.bar !== undefined && sameAt({ bar: s.bar, beat: beatOf(s) }, at) ? { ...s, byHand } : s))

/** The bars in which two routes differ, first and last; null where they do not. */
export const barsChanged = (
  before: readonly KeptStep[],
  after: readonly KeptStep[],
): { readonly from: number; readonly to: number } | null => {
  const said = (steps: readonly KeptStep[]) =>
    new Map(
      [...new Set(steps.map((s) => s.bar ?? 0))].map((bar) => [
        bar,
        JSON.stringify(
          steps.filter((s) => (s.bar ?? 0) === bar).map((s) => [beatOf(s), s.beats, s.overlay, s.byHand ?? false]),
        ),
      ]),
    )
  const [was, is] = [said(before), said(after)]
  const bars = [...new Set([...was.keys(), ...is.keys()])].filter((b) => was.get(b) !== is.get(b))
  return bars.length === 0 ? null : { from: Math.min(...bars), to: Math.max(...bars) }
}
