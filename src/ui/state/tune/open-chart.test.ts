import { describe, expect, it } from 'vitest'
import { DEFAULT_SCHOOL, DEFAULT_WEIGHTS } from '../../../core/index.ts'
import { settingsFrom } from '../kept/settings.ts'
import { addressAt, keptChart as kept } from '../testing/kept.ts'
import { openChartOf } from './open-chart.ts'

const PLACE = addressAt('/desk?chart=c1')
const at = { id: 'x', version: 1, createdAt: '', updatedAt: '' }

describe('the open chart', () => {
  const text = 'key = E\nmetre = 5/4\n| F#m7 B7 | Emaj7 |'

  it('finds the chord a place means, and shows its home scale where nothing is laid over it', () => {
    const openChart = openChartOf({ ...PLACE, bar: 1, beat: 4 }, kept(text))
    expect(openChart.current).toMatchObject({ index: 1, beat: 3.5, by: 'home' })
    expect(openChart.current?.reading?.overlay.name).toBe('B mixolydian')
  })

  it('shows a transposing player written pitch, and keeps concert pitch behind it', () => {
    const openChart = openChartOf({ ...PLACE, bar: 1, beat: 3.5, over: 'B+' }, kept(text, { instrument: 'bb' }))
    expect(openChart.spots.map((s) => s.spot.chord.symbol)).toEqual(['G#m7', 'C#7', 'F#maj7'])
    expect(openChart.current?.reading?.overlay.name).toBe('C#+')
    expect(openChart.concert?.overlay.name).toBe('B+')
    expect(openChart.concert?.chord.symbol).toBe('B7')
    const concert = openChartOf({ ...PLACE, bar: 1, beat: 3.5, over: 'B+' }, kept(text))
    expect(openChart.current?.reading?.fade).toBe(concert.current?.reading?.fade)
  })

  it('says what does not read, in the chart and in what is laid over it', () => {
    expect(openChartOf(PLACE, kept('| Hm7 |')).chartError).toMatchObject({ at: 2, found: 'Hm7' })
    expect(openChartOf({ ...PLACE, over: 'B foo' }, kept(text)).overlayError).toMatchObject({ at: 2, found: 'foo' })
  })

  it('has no next chord at the end of a sketch, and the first one at the end of a chart', () => {
    const end = { ...PLACE, bar: 2 }
    expect(openChartOf(end, kept(text)).current?.next?.symbol).toBe('F#m7')
    expect(openChartOf({ ...end, sketch: '| F#m7 | B7 |' }, kept(text)).current?.next).toBeNull()
  })

  it('is the text of its own a line lies over, while that line is in view', () => {
    const { chart: _, ...row } = kept(text)
    const ownText = { ...at, name: 'Own', chartId: null, text: '| Ebmaj7 |', line: { notes: [] } }
    const none = { tags: [], disputed: null, played: null, routeId: null }
    const openChart = openChartOf(PLACE, { ...row, chart: null, ownText: { ...ownText, ...none } })
    expect([openChart.title, openChart.spots[0]?.spot.chord.symbol, openChart.isSketch]).toEqual([
      'Own',
      'Ebmaj7',
      false,
    ])
  })

  it('takes a setting it does not know for none', () => {
    const none = settingsFrom([])
    expect(none).toMatchObject({ instrument: null, look: 'system', weights: DEFAULT_WEIGHTS, school: DEFAULT_SCHOOL })
    const odd = {
      instrument: 'kazoo',
      clef: 'sideways',
      weights: { ninth: 900, altered: 4 },
      school: { diminished: 7 },
    }
    expect(settingsFrom(Object.entries(odd).map(([name, value]) => ({ ...at, name, value })))).toEqual(none)
  })
})
