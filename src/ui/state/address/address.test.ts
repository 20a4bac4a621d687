import { describe, expect, it } from 'vitest'
import { addressAt } from '../testing/kept.ts'
import { addressOf, readAddress } from './address.ts'

const PLACE = addressAt('/desk?chart=c1')

describe('the address', () => {
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
    [{ ...PLACE, view: 'practice' as const, practise: 'takes' as const, take: 't1', otherTake: 't2' }],
  ])('survives the address and back', (place) => {
    const url = new URL(addressOf(place), 'http://x')
    expect(readAddress(url.pathname, url.searchParams)).toEqual(place)
  })
  it('encodes plus and sharp', () => {
    expect(addressOf({ ...PLACE, chart: null, sketch: '| F#m7 |', over: 'B+' })).toBe(
      '/desk?sketch=%7C+F%23m7+%7C&over=B%2B',
    )
  })
  it('passes over a loop, a tempo and a feel that cannot be', () => {
    const wrong = new URLSearchParams('loop=8-3&tempo=999&feel=polka&zoom=40&beside=moon')
    expect(readAddress('/line', wrong)).toMatchObject({
      loop: null,
      tempo: null,
      feel: null,
      zoom: 3,
      lineSide: 'note',
    })
  })
  it('knows no other address', () => {
    expect(readAddress('/harbour', new URLSearchParams())).toBeNull()
    expect(readAddress('/', new URLSearchParams('bar=x&beat=-2'))).toMatchObject({ bar: 1, beat: 1 })
  })
})
