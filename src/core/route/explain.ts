import { membersOf } from '../pitch/pcset.ts'
import { readOver } from '../reading/read.ts'
import { listed, noteSentence } from '../reading/sentence.ts'
import type { Weights } from '../reading/weights.ts'
import { COLOUR_FADE } from './costs.ts'
import { deviceName } from './device.ts'
import { type Joint, jointBetween } from './join.ts'
import { carriedBy } from './overuse.ts'
import type { Route, RouteStep } from './plan.ts'
import { changesOneNote } from './seam-cost.ts'
import { bassDirection } from './seam-rules.ts'

const STEPS = ['', 'half step', 'whole step', 'minor third', 'major third', 'fourth', 'tritone', 'fifth'] as const

/** `a half step up`, `a minor third down`: how far a shape moves. */
export const interval = (by: number): string => {
  const [size, way] =
    Math.abs(by) > 7 ? [12 - Math.abs(by), by > 0 ? 'down' : 'up'] : [Math.abs(by), by > 0 ? 'up' : 'down']
  return `a ${STEPS[size]} ${way}`
}

const pairsOf = (steps: readonly RouteStep[]): readonly (readonly [RouteStep, RouteStep])[] =>
  steps.slice(1).map((s, i) => [steps[i] as RouteStep, s] as const)

/** What moves in a one-note change: `A becomes A#`. */
const changeIn = (a: RouteStep, b: RouteStep): string => {
  const [from, to] = [a.overlay.set & ~b.overlay.set, b.overlay.set & ~a.overlay.set]
  const nameIn = (s: RouteStep, set: number): string =>
    listed(membersOf(set as typeof s.overlay.set).map((pc) => s.overlay.notes.find((n) => n.pc === pc)?.name ?? ''))
  return `${nameIn(a, from)} becomes ${nameIn(b, to)} into bar ${b.slot.bar}`
}

const motionSentence = ({ steps, motion }: Route): string | null => {
  const pairs = pairsOf(steps)
  if (motion.kind === 'shape') return `One shape moves ${interval(motion.by ?? 0)} at each change of a cadence.`
  if (motion.kind === 'one-note')
    return `One note changes at a time: ${pairs
      .filter(([a, b]) => changesOneNote(a.overlay.set, b.overlay.set))
      .slice(0, 3)
      .map(([a, b]) => changeIn(a, b))
      .join('; ')}.`
  if (motion.kind === 'contrary') {
    const falls = pairs.filter(([a, b]) => bassDirection(a.slot, b.slot) === 'down').length
    return `Against the bass: where the roots fall (${falls} ${falls === 1 ? 'time' : 'times'}) the overlays climb.`
  }
  const held = pairs.filter(([a, b]) => a.overlay.set === b.overlay.set).length
  const slides = pairs.filter(([, b]) => b.terms.motion > 0 && b.terms.motion <= 5).length
  return held + slides === 0
    ? null
    : `${held} of ${pairs.length} seams hold every note, ${slides} move less than a half step a note.`
}

/** `bar 5`, `bars 5, 7 and 9`. */
const barsOf = (steps: readonly RouteStep[]): string => {
  const bars = [...new Set(steps.map((s) => String(s.slot.bar)))]
  return `bar${bars.length > 1 ? 's' : ''} ${listed(bars)}`
}

const arcSentence = ({ steps }: Route): string => {
  const top = Math.max(...steps.map((s) => s.fade))
  const missed = steps.filter((s) => s.terms.arcMiss > 10)
  const far =
    top < COLOUR_FADE ? 'All inside.' : `Furthest out (${top}) in ${barsOf(steps.filter((s) => s.fade === top))}.`
  return missed.length > 0 ? `${far} More than 10 off the wish in ${barsOf(missed)}.` : far
}

/** A route's reasons in sentences, ASCII: how it moves, where it is out, what repeats. */
export const routeReasons = (route: Route): readonly string[] => {
  const repeats = route.steps.filter((s) => s.terms.repeats > 0)
  const carrying = carriedBy(route.steps.filter((s) => !s.slot.carries))
  return [
    motionSentence(route),
    arcSentence(route),
    carrying ? `The ${deviceName(carrying.device)} carries ${carrying.steps} of ${carrying.of} colour steps.` : null,
    repeats.length > 0 ? `The same device comes twice in a row in ${barsOf(repeats)}.` : null,
  ].filter((s): s is string => s !== null)
}

const seamSentence = (joint: Joint, to: RouteStep): string => {
  const ways = [joint.up, joint.down].filter((w) => w !== null)
  const [best] = ways.sort((a, b) => Number(b.guide) - Number(a.guide) || a.how.length - b.how.length)
  const held = joint.held.length > 0 ? `${listed(joint.held.map((n) => n.name))} held` : 'nothing held'
  const way = best
    ? `; ${best.from.name} goes a ${best.how} to ${best.to.name}, the ${best.degree} of ${to.slot.chord.symbol}`
    : ''
  return `Into bar ${to.slot.bar}: ${held}${way}.`
}

/** One step in sentences, ASCII: what it is and how far out, its worst note, and how it goes on. */
export const stepReason = (step: RouteStep, next: RouteStep | null, weights: Weights): string => {
  const reading = readOver(step.overlay, step.slot.place, weights)
  const wished = step.wished === null ? '' : ` (wished ${step.wished})`
  const head = `Bar ${step.slot.bar}, ${step.slot.chord.symbol}: ${step.overlay.name}, fade ${step.fade}${wished}.`
  const worst = reading.worst.fade >= COLOUR_FADE ? ` ${noteSentence(reading.worst, reading)}` : ''
  return next ? `${head}${worst} ${seamSentence(jointBetween(step.overlay, next), next)}` : `${head}${worst}`
}
