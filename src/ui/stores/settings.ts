import { INSTRUMENTS, type InstrumentId } from '../../core/index.ts'
import type { SettingRow } from './rows.ts'

export const LOOKS = ['system', 'light', 'club'] as const
export type Look = (typeof LOOKS)[number]

/** The settings of this slice, with their defaults; `instrument` is null until the player has answered. */
export interface Settings {
  readonly instrument: InstrumentId | null
  readonly look: Look
  readonly keys: 'on' | 'off'
}

const settingOf = (rows: readonly SettingRow[], name: string): unknown => rows.find((r) => r.name === name)?.value

/** What the kept rows say; a value that this program does not know counts as not set. */
export const settingsFrom = (rows: readonly SettingRow[]): Settings => {
  const asked = settingOf(rows, 'instrument')
  const look = settingOf(rows, 'look')
  return {
    instrument: INSTRUMENTS.find((i) => i.id === asked)?.id ?? null,
    look: LOOKS.find((l) => l === look) ?? 'system',
    keys: settingOf(rows, 'keys') === 'off' ? 'off' : 'on',
  }
}
