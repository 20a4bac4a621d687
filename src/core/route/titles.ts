import { readOver } from '../reading/read.ts'
import { COLOUR_FADE } from './costs.ts'
import { interval } from './explain.ts'
import type { Route, RouteStep } from './plan.ts'

const ROMAN = ['I', 'bII', 'II', 'bIII', 'III', 'IV', '#IV', 'V', 'bVI', 'VI', 'bVII', 'VII'] as const

/** `bIII minor pentatonic`: a shape and the degree of its root. */
const deviceWords = ({ device }: RouteStep): string => `${ROMAN[device.up]} ${device.formula}`

const OVER_JOB: Readonly<Record<string, string>> = {
  V: 'the V',
  'deceptive V': 'the V',
  'delayed V': 'the V',
  'substitute V': 'the substitute V',
  'backdoor V': 'the backdoor V',
  'chromatic V': 'the V',
  'blues V': 'the V',
  'blues I': 'the I',
  'blues IV': 'the IV',
  ii: 'the ii',
  'ii of substitute V': 'the ii',
  'chromatic ii': 'the ii',
  tonic: 'the tonic',
}
const overWords = ({ slot }: RouteStep): string => OVER_JOB[slot.spot.job?.kind ?? ''] ?? slot.chord.symbol

/** How most of an overlay's notes go on into the next chord. */
const homeWords = (step: RouteStep): string => {
  if (step.landing === null) return 'with nothing to land on'
  const ways = readOver(step.overlay, step.slot.place).notes.map((n) => n.exits[0]?.how ?? 'none')
  const count = (start: string): number => ways.filter((w) => w.startsWith(start)).length
  const [half, whole, held] = [count('half'), count('whole'), count('held')]
  if (half * 2 >= ways.length) return 'home by half steps'
  if (held >= half && held >= whole) return 'home by held notes'
  return whole > half ? 'home by whole steps' : 'home by half and whole steps'
}

/** The steps in the order in which a title would name them: furthest out first. */
const byFade = ({ steps }: Route): readonly RouteStep[] =>
  steps.filter((s) => !s.slot.carries).sort((a, b) => b.fade - a.fade || a.slot.index - b.slot.index)

const motionWords = ({ motion }: Route): string => {
  switch (motion.kind) {
    case 'shape':
      return `, moving ${interval(motion.by ?? 0)}`
    case 'one-note':
      return ', one note at a time'
    case 'contrary':
      return ', against the bass'
    case 'fewest':
      return ', fewest notes moving'
    case 'free':
      return ''
  }
}

const headOf = (step: RouteStep): string =>
  step.fade < COLOUR_FADE
    ? `All inside, ${deviceWords(step)} over ${overWords(step)}`
    : `${deviceWords(step)} over ${overWords(step)}, ${homeWords(step)}`

/** The step furthest out of those that the fewest of the others lay as this route does. */
const ownStep = (route: Route, others: readonly Route[]): RouteStep | undefined => {
  const shared = (s: RouteStep): number =>
    others.filter((o) => o.steps[s.slot.index]?.overlay.set === s.overlay.set).length
  return [...byFade(route)].sort((a, b) => shared(a) - shared(b))[0]
}

/**
 * What a list calls its routes, ASCII: the device where each is furthest out and how it comes home; where that is the
 * same words, also the bar that tells it from the others. No two are alike. Source: theory page, section 8.
 */
export const routeTitles = (routes: readonly Route[]): readonly string[] => {
  const heads = routes.map((route) => {
    const [furthest] = byFade(route)
    return (furthest ? headOf(furthest) : '') + motionWords(route)
  })
  const titles = routes.map((route, i) => {
    const others = routes.filter((_, k) => k !== i && heads[k] === heads[i])
    const own = others.length > 0 ? ownStep(route, others) : undefined
    if (!own) return heads[i] ?? ''
    return `${heads[i]}; ${heads[i]?.startsWith(deviceWords(own)) ? 'also' : deviceWords(own)} in bar ${own.slot.bar}`
  })
  return titles.map((t, i) => {
    const before = titles.slice(0, i).filter((o) => o === t).length
    return before === 0
      ? t
      : `${t} (${before + 1}): ${differsFrom(routes[titles.indexOf(t)] as Route, routes[i] as Route)}`
  })
}

/** What a title begins with as the list's first one does, before its own words; nothing where these are all its own. */
export const sharedStart = (title: string, first: string): string => {
  if (title.startsWith(`${first} `)) return `${first} `
  const head = title.slice(0, title.indexOf('; ') + 2)
  return head.endsWith('; ') && first.startsWith(head) ? head : ''
}

/** Where a route first lays something else than another of the same title. */
const differsFrom = (other: Route, route: Route): string => {
  const step = route.steps.find((s, i) => s.overlay.set !== other.steps[i]?.overlay.set)
  return step ? `${step.overlay.name} in bar ${step.slot.bar}` : 'the same'
}
