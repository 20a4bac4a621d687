import { describe, expect, it } from 'vitest'
import { readChart } from '../../../core/index.ts'
import type { IdeaRow } from '../kept/row-types.ts'
import { movedIdeas } from './moved.ts'

const at = { id: 'x', version: 1, createdAt: '', updatedAt: '' }

describe('ideas whose chart was edited', () => {
  const idea = (chord: string, bar: number, beat = 1): IdeaRow => ({
    ...at,
    id: `${chord} ${bar}`,
    overlay: 'E minor pentatonic',
    chord,
    next: null,
    note: null,
    tags: [],
    chartId: 'c1',
    bar,
    beat,
  })
  const moved = (text: string, ...ideas: readonly IdeaRow[]) => {
    const read = readChart(text)
    if (!read.ok) throw new Error(text)
    return movedIdeas(read.value, 'c1', ideas).map((m) => [m.idea.id, m.to && `${m.to.bar}.${m.to.beat}`])
  }
  it('stay where their chord stands, and else name the nearest place that has it', () => {
    const kept = [idea('Dm7', 1), idea('G7', 1, 3), idea('Cmaj7', 2)]
    expect(moved('| Dm7 G7 | Cmaj7 |', ...kept)).toEqual([])
    expect(moved('| F | Dm7 G7 | Cmaj7 | G7 |', ...kept)).toEqual([
      ['Dm7 1', '2.1'],
      ['G7 1', '2.3'],
      ['Cmaj7 2', '3.1'],
    ])
    expect(moved('| F | F |', ...kept).map(([, to]) => to)).toEqual([null, null, null])
    expect(moved('| F |', { ...idea('Dm7', 1), chartId: 'c2' })).toEqual([])
  })
})
