import { isDominant } from '../chord/chord.ts'
import type { Judged } from './dominants.ts'
import { type Form, type Hold, ticksOf } from './holds.ts'

/** What a spot of a held dominant does. */
export interface Held {
  readonly own: Judged
  /** The last chord of the hold, by which all of it is told. */
  readonly by: Hold
  /** Held so long that only its last bar leads on. */
  readonly waits: boolean
}

/** A dominant held for more bars than this waits until its last one. */
const HELD_BARS = 4

const waiting = ({ job }: Judged): Judged => ({
  job: { kind: 'static dominant', on: job.on, mode: job.mode, leads: job },
  resolves: false,
})

/** The I, IV and V of a blues keep their names however long they are held. */
const inBlues = (judged: Judged | undefined): boolean => judged?.job.kind.startsWith('blues') === true

/** The place of the last chord of one dominant on its root, suspended or plain, that begins at a place. */
const endOfRun = ({ holds }: Form, judged: readonly Judged[], from: number): number => {
  const root = holds[from]?.chord.root.pc
  const goesOn = (h: Hold | undefined): boolean =>
    h !== undefined && isDominant(h.chord) && h.chord.root.pc === root && !inBlues(judged[h.at])
  let to = from
  while (goesOn(holds[to + 1])) to++
  return to
}

/**
 * One dominant as long as it stays on its root, suspended or plain: up to four bars have the job of the last spot all
 * through; held longer it is static until its last bar. By the spots' indices. Source: theory page, section 7.
 */
export const heldDominants = (form: Form, judged: readonly Judged[], bar: number): ReadonlyMap<number, Held> => {
  const held = new Map<number, Held>()
  for (let from = 0; from < form.holds.length; from++) {
    if (!isDominant((form.holds[from] as Hold).chord) || inBlues(judged[from])) continue
    const to = endOfRun(form, judged, from)
    const run = form.holds.slice(from, to + 1)
    const ticks = ticksOf(run)
    const [own, by] = [judged[to] as Judged, form.holds[to] as Hold]
    let before = 0
    for (const s of run.flatMap((h) => h.spots)) {
      const waits = ticks > HELD_BARS * bar && before < ticks - bar
      held.set(s.index, { own: waits ? waiting(own) : own, by, waits })
      before += s.spot.length
    }
    from = to
  }
  return held
}
