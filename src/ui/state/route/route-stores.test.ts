import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { analyseChart, instrument, type KeptStep, readChart, reverse, stepAt } from '../../../core/index.ts'
import { BAND_SIZES, fadeAt, fadeY, layoutBand, nameLines } from '../../figures/route-band-layout.ts'
import { cutAtSteps, moveChains } from '../tune/follow.ts'
import { movePlan, readPlan, USUAL_PLAN, writePlan } from './plan-words.ts'

const read = readChart('| Dm7 | G7 | Cmaj7 | % |')
if (!read.ok) throw new Error('the chart must read')
const { spots, chains } = analyseChart(read.value, true)
const step = (bar: number, beat: number, overlay = 'Em'): KeptStep => ({ bar, beat, overlay })

describe('a plan in the address', () => {
  it('holds only what differs, and comes back the same', () => {
    expect(writePlan(USUAL_PLAN)).toBeNull()
    const words = writePlan({
      ...USUAL_PLAN,
      motion: '+1',
      locks: [{ bar: 2, beat: 1, overlay: 'Bb minor pentatonic' }],
    })
    expect(Object.keys(JSON.parse(words ?? ''))).toEqual(['motion', 'locks'])
    expect(readPlan(words)).toEqual({ motion: '+1', locks: [{ bar: 2, beat: 1, overlay: 'Bb minor pentatonic' }] })
  })
  it('from anywhere else counts only where it is as it should be', () => {
    expect(readPlan('{"motion":"+1","fadeMax":"high","locks":[{"bar":1}],"arc":[1],"nonsense":2}')).toEqual({
      motion: '+1',
    })
    fc.assert(fc.property(fc.string(), (text) => void readPlan(text)))
    fc.assert(fc.property(fc.json(), (text) => void writePlan(readPlan(text))))
  })
  it('is in concert pitch there, and in the player’s on the screen', () => {
    const plan = {
      locks: [{ bar: 1, beat: 1, overlay: 'E minor pentatonic' }],
      bans: [{ overlay: 'Ab & Bb' }, { device: 'dorian on 1' }],
    }
    const { written } = instrument('eb')
    const moved = movePlan(plan, written)
    expect([moved.locks?.[0]?.overlay, moved.bans?.[0]?.overlay, moved.bans?.[1]]).toEqual([
      'C# minor pentatonic',
      'F & G',
      { device: 'dorian on 1' },
    ])
    expect(movePlan(moved, reverse(written))).toEqual(plan)
  })
})

describe('a route that is followed', () => {
  const steps = [step(1, 1), step(1, 3, 'F'), step(2, 1), step(3, 1), step(4, 2, 'Am')]
  it('cuts the chords where it has steps; what is said of a chord stays', () => {
    const cut = cutAtSteps(spots, steps)
    expect(cut.spots.map((s) => [s.index, s.spot.bar, s.spot.at / 960, s.spot.length / 960, s.next?.symbol])).toEqual([
      [0, 1, 0, 2, 'Dm7'],
      [1, 1, 2, 2, 'G7'],
      [2, 2, 0, 4, 'Cmaj7'],
      [3, 3, 0, 4, 'Cmaj7'],
      [4, 4, 0, 1, 'Cmaj7'],
      [5, 4, 1, 3, 'Dm7'],
    ])
    expect(cut.spots[1]?.job).toEqual(spots[0]?.job)
    expect(moveChains(chains, cut.movedTo)[0]?.to.spots[0]?.index).toBe(3)
    expect(cutAtSteps(spots, []).spots).toEqual(spots)
  })
  it('is at its last step that began', () => {
    expect([stepAt(steps, { bar: 1, beat: 2.5 })?.overlay, stepAt(steps, { bar: 1, beat: 3 })?.overlay]).toEqual([
      'Em',
      'F',
    ])
    expect(stepAt(steps, { bar: 4, beat: 1 })).toBeUndefined()
  })
})

describe('the band', () => {
  it('gives each step the width of its beats, and room for its name', () => {
    const { boxes, width } = layoutBand([4, 2, 2])
    expect(boxes.map((b) => b.w)).toEqual([208, 104, 104])
    expect(width).toBe(416 + 40)
    expect(Math.min(...layoutBand([4, 1, 1]).boxes.map((b) => b.w))).toBeGreaterThanOrEqual(92)
  })
  it('holds the whole form in the room it has, or is wide enough for names', () => {
    const beats = Array.from({ length: 64 }, () => 2)
    expect(layoutBand(beats, 1000, true)).toMatchObject({ width: 1000, fits: false })
    expect(layoutBand(beats, 1000).width).toBeGreaterThan(5000)
    expect(layoutBand([4, 4], 1000, true)).toMatchObject({ fits: true })
  })
  it('reads a height back as the fade it shows, and stays within 0 and 100', () => {
    for (const sizes of [BAND_SIZES.near.tall, BAND_SIZES.whole.short]) {
      for (const fade of [0, 12, 55, 100]) expect(fadeAt(sizes, fadeY(sizes, fade))).toBe(fade)
      expect([fadeAt(sizes, -500), fadeAt(sizes, 5000)]).toEqual([100, 0])
    }
  })
  it.each([
    ['C♯ minor pentatonic', ['C♯ minor', 'pentatonic']],
    ['E♭sus4', ['E♭sus4', '']],
    ['A♭ & B♭+ and', ['A♭', '& B♭+ and']],
    ['F♯m7♭5 arpeggio', ['F♯m7♭5', 'arpeggio']],
  ])('%s stands in two lines', (name, lines) => expect(nameLines(name)).toEqual(lines))
})
