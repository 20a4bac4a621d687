import { readFigure } from '../make/figures.ts'
import type { LaidFrom } from '../make/ground.ts'
import type { MakeRequest } from '../make/request.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import type { Timeline } from '../time/timeline.ts'
import { readTune } from '../tune.ts'

export const timelineFor = (text: string): Timeline => {
  const read = readTune(text)
  if (!read.ok) throw new Error(`a chart of a test does not read: ${text}`)
  return read.value.timeline
}

export const figureNamed = (text: string) => {
  const read = readFigure(text)
  if (!read.ok) throw new Error(`a figure of a test does not read: ${text}`)
  return read.value
}

/** Overlays from quarters on. */
export const laidFrom = (laid: readonly (readonly [quarter: number, name: string])[]): readonly LaidFrom[] =>
  laid.map(([quarter, name]) => {
    const read = readOverlay(name)
    if (!read.ok) throw new Error(`an overlay of a test does not read: ${name}`)
    return { from: quarter * 960, overlay: read.value }
  })

/** A request with what a test does not name as plain as can be, over a whole chart. */
export const requestFor = (timeline: Timeline, asked: Partial<MakeRequest>): MakeRequest => ({
  ...{ plan: 'home', from: 0, to: timeline.length, figure: figureNamed('1 3 5'), approach: 'none', before: 'group' },
  ...{ approachTakes: 'time before', rhythm: { value: '1/8', start: 1, rest: null }, path: 'up', wave: 4 },
  ...{ order: 'alternate', inversion: 'climb', landing: null, range: [55, 81], limit: 8 },
  ...{ school: DEFAULT_SCHOOL, weights: DEFAULT_WEIGHTS },
  ...asked,
})
