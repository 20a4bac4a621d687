import { choice, partOf, type ValueOf } from '../codec.ts'

export const SETUP_SECTIONS = [
  'instrument',
  'school',
  'ears',
  'strings',
  'look',
  'telephones',
  'backup',
  'care',
] as const
export type SetupSection = (typeof SETUP_SECTIONS)[number]

/** Which section of Set-up is open. */
export const SETUP = partOf({ section: choice(SETUP_SECTIONS, 'instrument') })
export type SetupPart = ValueOf<typeof SETUP>
