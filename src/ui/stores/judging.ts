import {
  changesSentence,
  homeName,
  placeOf,
  readOverlay,
  reverse,
  type SchoolSetting,
  type Place as Spotted,
  toGlyphs,
  transposeOverlay,
} from '../../core/index.ts'
import { deskNow } from './actions.ts'
import type { Desk } from './desk.ts'
import { keepSetting } from './kept.ts'
import { say } from './notices.ts'
import { go } from './place.ts'

/** The home scales on offer where one stands, the rules' own first; names in written pitch. */
export const homesFor = ({ chord, next, school, job }: Spotted): readonly string[] => {
  const { home } = placeOf(chord, next, school, job)
  return [home.first, ...home.others].map(homeName)
}

/** Puts a home scale first on this chord, or gives it back to the rules; says what that changes. */
export const chooseHome = (name: string, desk: Desk): void => {
  const before = desk.current?.reading
  const read = readOverlay(name)
  if (!before || !read.ok) return
  const over = desk.concert?.overlay.name ?? null
  const byRule = homesFor(before.place)[0] === name
  go({ over, home: byRule ? null : transposeOverlay(read.value, reverse(desk.instrument.written)).name })
  const after = deskNow()?.current?.reading
  if (after) say(toGlyphs(`Home is ${name}. ${changesSentence(before, after)}`))
}

/** The next home scale on offer. */
export const cycleHome = (): void => {
  const desk = deskNow()
  const place = desk?.current?.reading?.place
  if (!desk || !place) return
  const names = homesFor(place)
  const next = names[(names.indexOf(homeName(place.home.first)) + 1) % names.length]
  if (next !== undefined) chooseHome(next, desk)
}

export const chooseSchool = async (setting: SchoolSetting, choice: string): Promise<void> => {
  const desk = deskNow()
  if (!desk) return
  const before = desk.current?.reading
  await keepSetting('school', { ...desk.settings.school, [setting]: choice })
  const after = deskNow()?.current?.reading
  if (before && after) say(toGlyphs(changesSentence(before, after)), 'undo')
}
