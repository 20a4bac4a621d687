import type { Job } from '../chart/job.ts'
import type { Slot } from './slots.ts'

/** How far out a step is wished where no arc is given. Source: theory page, section 8. */
const USUAL: Readonly<Partial<Record<Job['kind'], number>>> = {
  tonic: 10,
  'blues I': 20,
  ii: 15,
  'ii of substitute V': 15,
  'chromatic ii': 15,
  V: 35,
  'blues V': 35,
  'deceptive V': 35,
  'delayed V': 35,
  'substitute V': 35,
  'backdoor V': 35,
  'chromatic V': 35,
}
const ELSEWHERE = 20

export const usualFade = ({ spot }: Slot): number => (spot.job && USUAL[spot.job.kind]) ?? ELSEWHERE

/** Whether a slot's dominant is on its way home, so that what rubs there has a price. */
export const goesHome = ({ spot }: Slot): boolean => spot.resolves && spot.job !== null && /V$/.test(spot.job.kind)
