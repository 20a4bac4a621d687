import type { Overlay } from '../material/overlay.ts'
import type { RouteRules } from './rules.ts'
import { type At, type Slot, type SlotOptions, sameAt, spotStart } from './slots.ts'
import { usualFade } from './usual.ts'

/** A wish that stands at a place of the chart and stays there, however the spots about it are cut. */
export interface WishedFade extends At {
  readonly fade: number
}
export interface LockedAt extends At {
  readonly overlay: Overlay
}
/** What is not wanted at a place, or (null) anywhere. */
export interface BannedAt {
  readonly at: At | null
  readonly overlay: Overlay | null
  readonly device: string | null
}
export interface WindowAt extends At {
  readonly least: number
  readonly most: number
}

/** Everything a player asks of a route, by places in the chart. */
export interface RouteOptions extends Omit<RouteRules, 'arc' | 'usual' | 'locks' | 'bans' | 'windows'> {
  readonly slots: SlotOptions
  readonly arc: readonly WishedFade[]
  readonly locks: readonly LockedAt[]
  readonly bans: readonly BannedAt[]
  readonly windows: readonly WindowAt[]
}

/** The last wish that was made at or before a slot within its spot: both parts of a cut spot have what the whole had. */
const inForce = <W extends At>(wishes: readonly W[], slot: Slot, from: number): W | undefined =>
  wishes
    .filter((w) => w.bar === slot.bar && w.beat >= from - 1e-6 && w.beat <= slot.beat + 1e-6)
    .sort((a, b) => a.beat - b.beat)
    .at(-1)

/** The same by steps of the slots there are; what stands at no slot any more is left out. */
export const rulesOver = (slots: readonly Slot[], wishes: RouteOptions): RouteRules => {
  const { slots: _, ...plain } = wishes
  const stepAt = (at: At): number => slots.findIndex((s) => sameAt(s, at))
  return {
    ...plain,
    usual: wishes.arc.length === 0,
    arc: slots.map((s) =>
      wishes.arc.length === 0 ? usualFade(s) : (inForce(wishes.arc, s, spotStart(slots, s))?.fade ?? null),
    ),
    locks: wishes.locks.flatMap((l) => (stepAt(l) < 0 ? [] : { step: stepAt(l), overlay: l.overlay })),
    bans: wishes.bans.flatMap(({ at, overlay, device }) => {
      const step = at === null ? null : stepAt(at)
      return step === -1 ? [] : { step, overlay, device }
    }),
    windows: wishes.windows.flatMap(({ least, most, ...at }) =>
      stepAt(at) < 0 ? [] : { step: stepAt(at), least, most },
    ),
  }
}
