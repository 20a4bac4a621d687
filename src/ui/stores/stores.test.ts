import { describe, expect, it } from 'vitest'
import { DEFAULT_SCHOOL, DEFAULT_WEIGHTS, midi, readChart, ticks } from '../../core/index.ts'
import { deskOf } from './desk.ts'
import { NO_FILTERS } from './filters.ts'
import type { Kept } from './kept.ts'
import { movedIdeas } from './moved.ts'
import { addressOf, type Place, readPlace } from './place.ts'
import type { IdeaRow } from './rows.ts'
import { scoreFor, spanOf, startAt, tuneOf } from './scoring.ts'
import { settingsFrom } from './settings.ts'

const PLACE: Place = {
  view: 'desk',
  chart: 'c1',
  sketch: null,
  bar: 1,
  beat: 1,
  over: null,
  sounds: null,
  home: null,
  figure: 'slope',
  tray: [],
  filters: NO_FILTERS,
  part: 'map',
  distance: 1,
  scale: null,
  omit: null,
  search: null,
  order: '-updatedAt',
  side: 'harmony',
  other: null,
  shift: 0,
  plan: null,
  pick: 0,
  panel: 'step',
  route: null,
  against: null,
  line: null,
  note: 0,
  tab: false,
  zoom: 0,
  write: false,
  lineSide: 'note',
  loop: null,
  tempo: null,
  feel: null,
}
const at = { id: 'x', version: 1, createdAt: '', updatedAt: '' }
const kept = (text: string, settings: Record<string, unknown> = {}): Kept => ({
  charts: [{ id: 'c1', title: 'Bollard' }],
  chart: { ...at, id: 'c1', title: 'Bollard', text, tags: [], overrides: null },
  missing: false,
  loading: false,
  ideas: [],
  route: null,
  settings: Object.entries(settings).map(([name, value]) => ({ ...at, name, value })),
})

describe('the place', () => {
  it.each([
    [{ ...PLACE, over: 'B+', bar: 3, beat: 3.5 }],
    [{ ...PLACE, chart: null, sketch: '| F#m7 | B7 |', over: 'Ab & Bb+' }],
    [{ ...PLACE, view: 'setup' as const }],
    [{ ...PLACE, chart: null, sketch: '| (A|Bb) |', sounds: 'Ebm7' }],
    [{ ...PLACE, home: 'B altered', figure: 'fretboard' as const, tray: ['A & B+', 'F#m'], scale: 'F half-whole' }],
    [{ ...PLACE, view: 'pairs' as const, part: 'derive' as const, distance: 6, omit: '#4' }],
    [{ ...PLACE, loop: { from: 0, to: 12 }, tempo: 90, feel: 'free drone' as const }],
    [
      {
        ...PLACE,
        view: 'line' as const,
        line: 'l1',
        note: 7,
        tab: true,
        zoom: -2,
        write: true,
        lineSide: 'neck' as const,
      },
    ],
    [
      {
        ...PLACE,
        filters: {
          families: ['slip', 'pair'] as const,
          hold: [2, 6],
          avoid: [5],
          fadeMin: 10,
          fadeMax: 60,
          landingMin: 50,
          keyMax: 3,
          states: 'vague' as const,
          text: 'F# &',
          sort: 'landing' as const,
        },
      },
    ],
  ])('survives the address and back', (place) => {
    const url = new URL(addressOf(place), 'http://x')
    expect(readPlace(url.pathname, url.searchParams)).toEqual(place)
  })
  it('encodes plus and sharp', () => {
    expect(addressOf({ ...PLACE, chart: null, sketch: '| F#m7 |', over: 'B+' })).toBe(
      '/desk?sketch=%7C+F%23m7+%7C&over=B%2B',
    )
  })
  it('passes over a loop, a tempo and a feel that cannot be', () => {
    const wrong = new URLSearchParams('loop=8-3&tempo=999&feel=polka&zoom=40&beside=moon')
    expect(readPlace('/line', wrong)).toMatchObject({ loop: null, tempo: null, feel: null, zoom: 3, lineSide: 'note' })
  })
  it('knows no other address', () => {
    expect(readPlace('/harbour', new URLSearchParams())).toBeNull()
    expect(readPlace('/', new URLSearchParams('bar=x&beat=-2'))).toMatchObject({ bar: 1, beat: 1 })
  })
})

describe('what is played', () => {
  const text = 'pickup = 1\nmetre = 3/4\n| G7 | Cmaj7 | Am7 | Dm7 | G7 |'
  const tune = tuneOf(PLACE, kept(text))
  if (!tune) throw new Error('no tune')
  const note = (at: number, length: number) => ({ at: ticks(at), for: ticks(length), pitch: midi(64) })
  const line = [note(960 + 2880 + 100, 400), note(960 + 2880 * 2, 960)]

  it.each([
    ['the bars asked for', { from: 2, to: 3 }, { kind: 'laid' as const }, [960 + 2880, 960 + 2880 * 3]],
    ['else the bars of the line', null, { kind: 'line' as const, id: 'x' }, [960 + 2880, 960 + 2880 * 3]],
    ['else the whole form', null, { kind: 'laid' as const }, [0, 960 + 2880 * 4]],
    ['bars that are not there count for nothing', { from: 40, to: 44 }, { kind: 'laid' as const }, [0, 960 + 2880 * 4]],
  ])('%s', (_, loop, source, [from, to]) => expect(spanOf(tune, loop, line, source)).toEqual({ from, to }))

  it('begins at the bar in view, or with the span where that bar is outside it', () => {
    const span = { from: 960 + 2880, to: 960 + 2880 * 3 }
    expect(startAt(tune, span, 3)).toBe(960 + 2880 * 2)
    expect(startAt(tune, span, 1)).toBe(span.from)
  })

  it('a line in its second chorus is played over the second chorus', () => {
    const form = tune.timeline.length
    expect(spanOf(tune, null, [note(form + 960, 480)], { kind: 'line', id: 'x' })).toEqual({
      from: form + 960,
      to: form + 3840,
    })
  })

  it('runs through what is laid and rests over what is not; written pitch sounds in concert', () => {
    const place = { ...PLACE, bar: 2, over: 'C' }
    for (const settings of [{}, { instrument: 'bb' }]) {
      const all = kept('| Dm7 | Cmaj7 | Fmaj7 |', settings)
      const own = tuneOf(place, all)
      if (!own) throw new Error('no tune')
      const sung = scoreFor({ kind: 'laid' }, own, place, deskOf(place, all)).notes.filter((n) => n.part === 'line')
      expect(sung).toHaveLength(8)
      expect(sung.every((n) => [0, 4, 7].includes(n.pitch % 12))).toBe(true)
      expect(sung[0]?.at).toBe(3840)
    }
  })
})

describe('the desk', () => {
  const text = 'key = E\nmetre = 5/4\n| F#m7 B7 | Emaj7 |'

  it('finds the chord a place means, and shows its home scale where nothing is laid over it', () => {
    const desk = deskOf({ ...PLACE, bar: 1, beat: 4 }, kept(text))
    expect(desk.current).toMatchObject({ index: 1, beat: 3.5, by: 'home' })
    expect(desk.current?.reading?.overlay.name).toBe('B mixolydian')
  })

  it('shows a transposing player written pitch, and keeps concert pitch behind it', () => {
    const desk = deskOf({ ...PLACE, bar: 1, beat: 3.5, over: 'B+' }, kept(text, { instrument: 'bb' }))
    expect(desk.spots.map((s) => s.spot.chord.symbol)).toEqual(['G#m7', 'C#7', 'F#maj7'])
    expect(desk.current?.reading?.overlay.name).toBe('C#+')
    expect(desk.concert?.overlay.name).toBe('B+')
    expect(desk.concert?.chord.symbol).toBe('B7')
    const concert = deskOf({ ...PLACE, bar: 1, beat: 3.5, over: 'B+' }, kept(text))
    expect(desk.current?.reading?.fade).toBe(concert.current?.reading?.fade)
  })

  it('says what does not read, in the chart and in what is laid over it', () => {
    expect(deskOf(PLACE, kept('| Hm7 |')).chartError).toMatchObject({ at: 2, found: 'Hm7' })
    expect(deskOf({ ...PLACE, over: 'B foo' }, kept(text)).overlayError).toMatchObject({ at: 2, found: 'foo' })
  })

  it('has no next chord at the end of a sketch, and the first one at the end of a chart', () => {
    const end = { ...PLACE, bar: 2 }
    expect(deskOf(end, kept(text)).current?.next?.symbol).toBe('F#m7')
    expect(deskOf({ ...end, sketch: '| F#m7 | B7 |' }, kept(text)).current?.next).toBeNull()
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
