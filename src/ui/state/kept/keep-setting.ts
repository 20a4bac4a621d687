import { addRow, changeRow, standingOf } from './rows.ts'
import type { HowChanged } from './standing.ts'

/** Keeps a setting, and shows it at once; its row is made the first time. */
export const keepSetting = (name: string, value: unknown, how: HowChanged = {}): void => {
  if (standingOf('settings', name)) changeRow('settings', name, { value }, how)
  else addRow('settings', { name, value }, how.join)
}

/** The same for what slides: as long as it moves on, it is one thing to undo. */
export const slideSetting = (name: string, value: unknown): void =>
  keepSetting(name, value, { join: `setting ${name}`, rest: REST_MS })
const REST_MS = 300
