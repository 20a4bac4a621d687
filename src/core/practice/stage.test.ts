import { describe, expect, it } from 'vitest'
import { midi, ticks } from '../pitch/units.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import type { ItemOf } from './items.ts'
import { OUTSIDE_NAMES } from './outsides.ts'
import { roundAt } from './rounds.ts'
import { type RoundVariant, type Sources, type Stage, stageOf } from './stage.ts'

const BAR = 3840
const SETTINGS = { school: DEFAULT_SCHOOL, weights: DEFAULT_WEIGHTS }
const WHOLE: RoundVariant = { kind: 'whole' }
const stage = (of: ItemOf, key: string, variant: RoundVariant = WHOLE, sources: Sources = {}): Stage => {
  const made = stageOf(of, key, variant, sources, SETTINGS)
  if (!made) throw new Error('no stage')
  return made
}
const chords = ({ tune }: Stage): string =>
  tune.timeline.soundings.map((s) => (s.place ? s.place.chord.symbol : '–')).join(' ')
const laid = ({ laid: all }: Stage): string =>
  all.map((l) => `${l.from / BAR}–${l.to / BAR} ${l.overlay.name}`).join(', ')
const cues = ({ cues: all }: Stage): string => all.map((c) => `${c.where} ${(c.to - c.from) / BAR}`).join(', ')

describe('a round of an item', () => {
  const five: ItemOf = { kind: 'overlay', overlay: 'B minor pentatonic', chord: 'Eb7', next: 'Abmaj7' }
  it.each([
    ['Eb', 'Eb7 Eb7 Abmaj7 Abmaj7', '0–1 B minor pentatonic, 1–2 B minor pentatonic'],
    ['D', 'D7 D7 Gmaj7 Gmaj7', '0–1 Bb minor pentatonic, 1–2 Bb minor pentatonic'],
    ['F#', 'F#7 F#7 Bmaj7 Bmaj7', '0–1 D minor pentatonic, 1–2 D minor pentatonic'],
    ['A', 'A7 A7 Dmaj7 Dmaj7', '0–1 F minor pentatonic, 1–2 F minor pentatonic'],
  ])('lays an overlay over its chord and comes home in what follows, in %s', (key, symbols, overlays) => {
    const made = stage(five, key)
    expect(chords(made)).toBe(symbols)
    expect(laid(made)).toBe(overlays)
    expect(cues(made)).toBe('out 2, in 2')
  })
  it('is one block out and one in over a vamp, either first, of any length', () => {
    const blocks: ItemOf = { kind: 'out-in', chord: 'Dm7', outside: 'Eb minor pentatonic', block: 4, first: 'in' }
    expect(cues(stage(blocks, 'D'))).toBe('in 4, out 4')
    expect(cues(stage({ ...blocks, first: 'out', block: 3 }, 'D'))).toBe('out 3, in 3')
    expect(laid(stage({ ...blocks, block: 1 }, 'F#'))).toBe('1–2 G minor pentatonic')
  })
  it.each(OUTSIDE_NAMES)('knows what is outside: %s', (outside) => {
    const made = stage({ kind: 'out-in', chord: 'Dm7', outside, block: 2, first: 'out' }, 'D')
    expect(made.laid.length).toBe(2)
    expect(cues(made)).toBe('out 2, in 2')
  })
  it('takes another chart’s changes as what is outside, moved with the key', () => {
    const of: ItemOf = { kind: 'out-in', chord: 'C', outside: 'another chart’s changes', block: 1, first: 'out' }
    const made = stage(of, 'D', WHOLE, { otherText: '| Ebm7 | F#7 |' })
    expect(laid(made)).toBe('0–1 F Ab C Eb')
  })
  it('lays sounds apart, by turns, and nothing when it is free', () => {
    const of: ItemOf = { kind: 'combine', sounds: ['F', 'G'], chord: 'Dm7', block: 2 }
    const names = (variant: RoundVariant): string =>
      stage(of, 'E', variant)
        .laid.map((l) => l.overlay.name)
        .join(' ')
    expect(names({ kind: 'only', sound: 0 })).toBe('G G G G')
    expect(names({ kind: 'only', sound: 1 })).toBe('A A A A')
    expect(names({ kind: 'turns' })).toBe('G G A A')
    expect(names({ kind: 'free' })).toBe('')
  })
  it('plays bars of a chart with its route, and its line, in another key', () => {
    const text = 'key = F\n| F | Gm7 | C7 | F |'
    const of: ItemOf = { kind: 'route', chartId: 'x', key: 'F', bars: { from: 2, to: 3 } }
    const steps = [{ bar: 3, beat: 1, beats: 4, overlay: 'Db minor pentatonic' }]
    const line = [{ at: ticks(0), for: ticks(480), pitch: midi(65) }]
    const made = stage(of, 'G', WHOLE, { text, steps, line })
    expect(made.span).toEqual({ from: BAR, to: 3 * BAR })
    expect(laid(made)).toBe('2–3 Eb minor pentatonic')
    expect(made.line?.map((n) => n.pitch)).toEqual([67])
    // G and B flat over Am7 are its b7 and b9; nothing but the line lies there.
    const own = stage({ ...of, bars: { from: 2, to: 2 } }, 'G', WHOLE, {
      text,
      line: [65, 68].map((pitch, i) => ({ at: ticks(BAR + i * 480), for: ticks(480), pitch: midi(pitch) })),
    })
    expect(own.cues.map((c) => c.name)).toEqual(['G Bb'])
    const bars = { kind: 'line', key: 'F' }
    const late = [{ at: ticks(2 * BAR + 960), for: ticks(4000), pitch: midi(65) }]
    expect(stage(bars, 'F', WHOLE, { text, line: late }).span).toEqual({ from: 2 * BAR, to: 3 * BAR })
    const long = [...late, { at: ticks(5 * BAR), for: ticks(960), pitch: midi(65) }]
    expect(stage(bars, 'F', WHOLE, { text, line: long }).span).toEqual({ from: 0, to: 4 * BAR })
  })
  it('is moved once more for a player who reads another pitch', () => {
    const made = stageOf(five, 'D', WHOLE, {}, { ...SETTINGS, written: { letters: 1, semitones: 2 } })
    expect(made && chords(made)).toBe('E7 E7 Amaj7 Amaj7')
  })
  it('is none where a chart does not read or holds nothing', () => {
    expect(stageOf({ kind: 'route' }, 'C', WHOLE, { text: '| Hm7 |' }, SETTINGS)).toBeNull()
    expect(stageOf({ kind: 'route' }, 'C', WHOLE, { text: '' }, SETTINGS)).toBeNull()
  })
})

describe('rounds', () => {
  const told = (of: ItemOf, hearFirst: boolean, count: number): string =>
    Array.from({ length: count }, (_, n) => {
      const { key, heard, variant } = roundAt({ of, keys: ['C', 'F'], hearFirst }, n)
      return `${key}${heard ? ' heard' : ''}${variant.kind === 'whole' ? '' : ` ${variant.kind}`}`
    }).join(', ')
  it('are heard, then played, key after key, round and round', () => {
    expect(told({ kind: 'overlay' }, true, 5)).toBe('C heard, C, F heard, F, C heard')
    expect(told({ kind: 'overlay' }, false, 3)).toBe('C, F, C')
  })
  it('take sounds apart first, then by turns, then freely without hearing', () => {
    expect(told({ kind: 'combine', sounds: ['F', 'G'] }, true, 8)).toBe(
      'C heard only, C only, C heard only, C only, C heard turns, C turns, C free, F heard only',
    )
  })
})
