import { keepSetting } from '../kept/keep-setting.ts'
import { standingOf } from '../kept/rows.ts'

/** How one practises: whether each round is heard first, and whether a bar of count stands before each key. */
export interface PracticeManner {
  readonly hearFirst: boolean
  readonly breathe: boolean
}
export const mannerFrom = (value: unknown): PracticeManner => {
  const { hearFirst = true, breathe = false } = (value ?? {}) as Partial<PracticeManner>
  return { hearFirst: hearFirst !== false, breathe: breathe === true }
}
export const setManner = (manner: PracticeManner): void => keepSetting('practice', manner)
export const mannerNow = (): PracticeManner => mannerFrom(standingOf('settings', 'practice')?.row.value)
