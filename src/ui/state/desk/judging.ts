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
} from '../../../core/index.ts'
import { choose } from '../address/address.ts'
import { keepSetting } from '../kept/keep-setting.ts'
import { say } from '../page/notices.ts'
import { $openChart, type OpenChart } from '../tune/open-chart.ts'

/** The home scales on offer where one stands, the rules' own first; names in written pitch. */
export const homesFor = ({ chord, next, school, job }: Spotted): readonly string[] => {
  const { home } = placeOf(chord, next, school, job)
  return [home.first, ...home.others].map(homeName)
}

/** Puts a home scale first on this chord, or gives it back to the rules; says what that changes. */
export const chooseHome = (name: string, openChart: OpenChart): void => {
  const before = openChart.current?.reading
  const read = readOverlay(name)
  if (!before || !read.ok) return
  const over = openChart.concert?.overlay.name ?? null
  const byRule = homesFor(before.place)[0] === name
  choose('the home scale', {
    over,
    home: byRule ? null : transposeOverlay(read.value, reverse(openChart.instrument.written)).name,
  })
  const after = $openChart.get()?.current?.reading
  if (after) say(toGlyphs(`Home is ${name}. ${changesSentence(before, after)}`), 'undo')
}

/** The next home scale on offer. */
export const cycleHome = (): void => {
  const openChart = $openChart.get()
  const place = openChart?.current?.reading?.place
  if (!openChart || !place) return
  const names = homesFor(place)
  const next = names[(names.indexOf(homeName(place.home.first)) + 1) % names.length]
  if (next !== undefined) chooseHome(next, openChart)
}

export const chooseSchool = (setting: SchoolSetting, choice: string): void => {
  const openChart = $openChart.get()
  if (!openChart) return
  const before = openChart.current?.reading
  keepSetting('school', { ...openChart.settings.school, [setting]: choice })
  const after = $openChart.get()?.current?.reading
  if (before && after) say(toGlyphs(changesSentence(before, after)), 'undo')
}
