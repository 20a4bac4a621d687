import { type Grade, roundAt } from '../../../core/index.ts'
import { $address } from '../address/address.ts'
import { changeRow, standingOf } from '../kept/rows.ts'
import { say } from '../page/notices.ts'
import { dropEntry, logRound } from '../practice/logging.ts'
import { mannerNow } from './practice-manner.ts'
import { isPractising, moveKey, startRounds, stopRounds } from './practising.ts'
import {
  $graded,
  $onStage,
  $practiceTick,
  $tempos,
  type Graded,
  type OnStage,
  roundsAsked,
  type ShownRound,
  shownFor,
} from './stage.ts'

/** In the first half of a round one speaks of the one before, where that was not graded. */
const HALF = 0.5

/** The round a grade is meant for: the one that is played now, or the one before it; null where there is none. */
const gradable = (of: OnStage): number | null => {
  const { shown } = of
  if (!shown) return null
  const { from, to } = shown.stage.span
  const tick = $practiceTick.get()
  const share = tick === null ? 1 : (tick - from) / (to - from)
  const before = shown.number - 1
  const wasPlayed = before >= 0 && !roundAt(roundsAsked(of), before).heard && before in $tempos.get()
  if (wasPlayed && share < HALF && !(before in $graded.get())) return before
  if (!shown.round.heard) return shown.number
  return wasPlayed ? before : null
}

const secondsOfRound = ({ stage, tempo }: ShownRound): number =>
  ((stage.span.to - stage.span.from) / stage.tune.timeline.beat) * (60 / tempo)

/** Grades the round just played; one that has a grade is given another. */
export const gradeRound = (grade: Grade): void => {
  const of = $onStage.get()
  if (!of || of.state !== 'ready') return
  const number = gradable(of)
  if (number === null) return say('Listen first: there is no round to grade yet.')
  const before = $graded.get()[number]
  const round = shownFor(of, number, $tempos.get()[number] ?? null)
  if (!round) return
  const known = before && standingOf('log', before.id) ? before.id : null
  if (known !== null) changeRow('log', known, { grade })
  const minutes = Math.round((secondsOfRound(round) / 60) * (mannerNow().hearFirst ? 2 : 1) * 100) / 100
  const { key } = round.round
  const id = known ?? logRound({ itemId: of.item.id, key, tempo: round.tempo, grade, minutes })
  $graded.set({ ...$graded.get(), [number]: { id, grade } })
  lastGraded = { number, before }
}

let lastGraded: { readonly number: number; readonly before: Graded | undefined } | null = null

/** Takes back what the last press graded: the first of two that mean stop. */
const ungradeLast = (): void => {
  if (lastGraded === null) return
  const { number, before } = lastGraded
  const { [number]: entry, ...rest } = $graded.get()
  lastGraded = null
  if (before && entry) {
    changeRow('log', before.id, { grade: before.grade })
    $graded.set({ ...rest, [number]: before })
  } else if (entry) {
    dropEntry(entry.id)
    $graded.set(rest)
  }
}

/** Two presses this far apart are one gesture. */
const TWICE_MS = { least: 60, most: 450 } as const
let pressed = { by: 0, at: Number.NEGATIVE_INFINITY }

/** On the player the pedal grades while it runs, twice stops; at rest it starts, or goes back a key. */
export const pedalOnStage = (by: 1 | -1, at: number): boolean => {
  if ($address.get()?.view !== 'player') return false
  const since = at - pressed.at
  const isTwice = pressed.by === by && since > TWICE_MS.least && since < TWICE_MS.most
  pressed = { by, at }
  if (!isPractising()) {
    if (by === 1) void startRounds()
    else moveKey(-1)
    return true
  }
  if (isTwice) {
    ungradeLast()
    stopRounds()
  } else gradeRound(by === 1 ? 'clean' : 'again')
  return true
}
