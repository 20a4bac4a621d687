import type { Weights } from '../reading/weights.ts'
import type { Terms } from './costs.ts'
import { deviceName } from './device.ts'
import { routeReasons, stepReason } from './explain.ts'
import { jointBetween } from './join.ts'
import type { Route, RouteStep } from './plan.ts'
import { routeTitles } from './titles.ts'

/** A seam in words: note names, semitones a note on average, and which way the set goes. */
export interface SeamReport {
  readonly motion: number
  readonly common: readonly string[]
  readonly halfSteps: readonly (readonly [string, string])[]
  readonly direction: 1 | 0 | -1
}

/** A step in words, as it is sent, kept and exported. ASCII names. */
export interface StepReport {
  readonly bar: number
  readonly beat: number
  readonly beats: number
  readonly chord: string
  readonly overlay: string
  readonly device: string
  readonly fade: number
  readonly landing: number | null
  readonly wished: number | null
  /** Whether it goes on with the overlay of the step before. */
  readonly carries: boolean
  readonly terms: Terms
  /** How it goes on into the next step; null at the end. */
  readonly seam: SeamReport | null
  readonly why: string
}

export interface RouteReport {
  readonly title: string
  readonly total: number
  readonly terms: Terms
  readonly why: readonly string[]
  readonly steps: readonly StepReport[]
}

const seamOf = (from: RouteStep, to: RouteStep): SeamReport => {
  const { motion, held, slides, direction } = jointBetween(from.overlay, to)
  return {
    motion,
    common: held.map((n) => n.name),
    halfSteps: slides.map(([a, b]) => [a.name, b.name] as const),
    direction,
  }
}

/** Routes in words, their titles told apart. */
export const describeRoutes = (routes: readonly Route[], weights: Weights): readonly RouteReport[] => {
  const titles = routeTitles(routes)
  return routes.map((route, i) => routeTold(route, titles[i] as string, weights))
}

const routeTold = (route: Route, title: string, weights: Weights): RouteReport => ({
  title,
  total: route.total,
  terms: route.terms,
  why: routeReasons(route),
  steps: route.steps.map((step, i) => {
    const next = route.steps[i + 1] ?? null
    return {
      bar: step.slot.bar,
      beat: step.slot.beat,
      beats: step.slot.beats,
      chord: step.slot.chord.symbol,
      overlay: step.overlay.name,
      device: deviceName(step.device),
      fade: step.fade,
      landing: step.landing,
      wished: step.wished,
      carries: step.slot.carries,
      terms: step.terms,
      seam: next && seamOf(step, next),
      why: stepReason(step, next, weights),
    }
  }),
})

/** What a step must have to be written down: a kept one may have been sent by a script with less, and may lay nothing. */
export type KeptStep = Partial<Omit<StepReport, 'overlay'>> & {
  readonly overlay: string | null
  /** Whether the player laid it, so that a planning keeps it. */
  readonly byHand?: boolean
}

/** One step as a line, ASCII: `bar 12, beat 1, F#m7: C# minor pentatonic (fade 11, landing 60)`. */
export const stepLine = ({ bar, beat, chord, overlay, fade, landing, carries }: KeptStep): string => {
  const figures = [
    fade === undefined ? null : `fade ${fade}`,
    landing === undefined || landing === null ? null : `landing ${landing}`,
  ].filter((f) => f !== null)
  const where = [bar === undefined ? null : `bar ${bar}`, beat === undefined ? null : `beat ${beat}`, chord ?? null]
  const what = overlay === null ? 'nothing laid' : carries ? `${overlay}, going on` : overlay
  return `${where.filter((w) => w !== null).join(', ')}: ${what}${figures.length > 0 ? ` (${figures.join(', ')})` : ''}`
}
