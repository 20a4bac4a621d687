import { beatOf, type Chart, sameBeat, spotsOf } from '../../../core/index.ts'
import type { IdeaRow } from '../kept/row-types.ts'
import { changeRow } from '../kept/rows.ts'
import { say } from '../page/notices.ts'

export interface Spot {
  readonly bar: number
  readonly beat: number
}

/** A kept idea whose chord does not stand where it did, and the nearest place where it stands now. */
export interface MovedIdea {
  readonly idea: IdeaRow
  readonly to: Spot | null
}

/** The ideas of a chart that its text has left behind; both the chart and the ideas are in concert pitch. */
export const movedIdeas = (chart: Chart, chartId: string, ideas: readonly IdeaRow[]): readonly MovedIdea[] => {
  const spots = spotsOf(chart).map((s) => ({ bar: s.bar, beat: beatOf(s), symbol: s.chord.symbol }))
  return ideas
    .filter((i) => i.chartId === chartId && i.bar !== null && i.beat !== null)
    .filter((i) => !spots.some((s) => s.bar === i.bar && sameBeat(s.beat, i.beat ?? 0) && s.symbol === i.chord))
    .map((idea) => {
      const away = (s: Spot) => Math.abs(s.bar - (idea.bar ?? 0)) * 100 + Math.abs(s.beat - (idea.beat ?? 0))
      const [to = null] = spots.filter((s) => s.symbol === idea.chord).sort((a, b) => away(a) - away(b))
      return { idea, to: to && { bar: to.bar, beat: to.beat } }
    })
}

/** Takes an idea along to another place in its chart, or (null) off the chart: it stays kept by itself. */
export const moveIdea = ({ id, chartId }: IdeaRow, to: Spot | null): void => {
  changeRow('ideas', id, to ? { chartId, bar: to.bar, beat: to.beat } : { chartId: null, bar: null, beat: null })
  say('Moved.', 'undo')
}
