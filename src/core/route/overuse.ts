import { COLOUR_FADE } from './costs.ts'
import { type Device, deviceName, readDevice } from './device.ts'
import type { KeptStep } from './report.ts'

/** A step as overuse looks at it: steps of kept routes are told from their names. */
export interface UsedStep {
  readonly device: Device
  readonly fade: number
}

/** The device that carries most of the colour, and how much of it. */
export interface Carrying {
  readonly device: Device
  readonly steps: number
  readonly of: number
}

/** The steps of a kept route as overuse looks at them; those that only go on are no choices. */
export const usedIn = (steps: readonly KeptStep[]): readonly UsedStep[] =>
  steps.flatMap(({ device, fade, carries }) => {
    const read = device === undefined ? null : readDevice(device)
    return read && fade !== undefined && !carries ? [{ device: read, fade }] : []
  })

/** Fewer colour steps say nothing of a habit. */
const ENOUGH = 3
const SHARE = 0.4

/** The device that carries so much of the colour that it gets predictable; null where none does. */
export const carriedBy = (steps: readonly UsedStep[]): Carrying | null => {
  const colour = steps.filter((s) => s.fade >= COLOUR_FADE)
  const counts = new Map<string, { device: Device; steps: number }>()
  for (const { device } of colour) {
    const name = deviceName(device)
    counts.set(name, { device, steps: (counts.get(name)?.steps ?? 0) + 1 })
  }
  const [most] = [...counts.values()].sort((a, b) => b.steps - a.steps)
  if (!most || most.steps < ENOUGH || most.steps < SHARE * colour.length) return null
  return { ...most, of: colour.length }
}
