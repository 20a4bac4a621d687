import fc from 'fast-check'
import { expect, test } from 'vitest'
import { analyseChart } from '../chart/analyse.ts'
import { readChart } from '../chart/read-chart.ts'
import { midi, pitchClass, ticks } from '../pitch/units.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { timelineOf } from '../time/timeline.ts'
import { displaceLine, holdNote, insertNote, moveNote, movePitch, removeNote } from './edit.ts'
import { pitchNear, pitchOnStaff, readEntry, writeEntry } from './entry.ts'
import { endOf, type Line, lineOf } from './line.ts'

const timelineFrom = (text: string) => {
  const read = readChart(text)
  if (!read.ok) throw new Error('no chart')
  return timelineOf(read.value, analyseChart(read.value, true), [], DEFAULT_SCHOOL)
}
const TIMELINE = timelineFrom('| Dm7 | G7 | N.C. | Cmaj7 |')
const typed = (text: string, at = 0, near = 65) => {
  const words = readEntry(text)
  if (!words.ok) return words.error
  const written = writeEntry({ line: [], at, length: 480, near: midi(near) }, words.value, TIMELINE)
  return written.ok ? written.value.line.map((n) => `${n.at}+${n.for}=${n.pitch}`).join(' ') : written.error
}

test.each([
  [
    'degrees count from the chord that sounds, each near the one before',
    'b3 5 b7 9',
    '0+480=65 480+480=69 960+480=72 1440+480=76',
  ],
  ['above and below', "1' 1, 5,", '0+480=74 480+480=62 960+480=57'],
  ['a rest, and a length of its own', 'b3 r 5:2 b3', '0+480=65 960+1920=69 2880+480=65'],
  ['a length for what follows: triplets', ':1/3 1 2 b3', '0+320=62 320+320=64 640+320=65'],
  ['true glyphs and bar lines', '♭3 | ♯11', '0+480=65 480+480=68'],
  ['into the next chord', ':4 1 3', '0+3840=62 3840+3840=59'],
])('%s', (_, text, expected) => expect(typed(text)).toBe(expected))

test.each([
  ['3 h 5', 2, 'h'],
  ['b15', 0, 'b15'],
  ['3:0', 0, '3:0'],
  ["r'", 0, "r'"],
  ['1 :99', 2, ':99'],
])('“%s” is refused where it goes wrong', (text, at, found) => expect(typed(text)).toMatchObject({ at, found }))

test('where no chord sounds a degree is refused, and a rest goes on', () => {
  expect(typed('3', 7680)).toMatchObject({ code: 'bad_entry', at: 0, found: '3' })
  expect(typed('r:4 3', 7680)).toBe('11520+480=64')
})

test('the nearest pitch is never more than a tritone off, and above is above', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 11 }), fc.integer({ min: 40, max: 80 }), (pc, near) => {
      for (const way of ['near', 'up', 'down'] as const) expect(pitchClass(pitchNear(pc, near, way))).toBe(pc)
      expect(Math.abs(pitchNear(pc, near, 'near') - near)).toBeLessThanOrEqual(6)
      expect(pitchNear(pc, near, 'up')).toBeGreaterThan(near)
      expect(pitchNear(pc, near, 'down')).toBeLessThan(near)
    }),
  )
})

const note = (at: number, length: number, pitch: number) => ({ at: ticks(at), for: ticks(length), pitch: midi(pitch) })
const LINE: Line = lineOf([note(0, 480, 60), note(480, 960, 62), note(1440, 480, 64)])

test('what is put in takes its time, and only that', () => {
  expect(insertNote(LINE, note(960, 480, 70)).map((n) => [n.at, n.for, n.pitch])).toEqual([
    [0, 480, 60],
    [480, 480, 62],
    [960, 480, 70],
    [1440, 480, 64],
  ])
})

test('notes are moved, held and taken out within their neighbours', () => {
  expect(moveNote(LINE, 1, -9999)[1]?.at).toBe(1)
  expect(moveNote(LINE, 1, 9999)[1]).toMatchObject({ at: 1439, for: 1 })
  expect(moveNote(LINE, 1, -240).map((n) => n.for)).toEqual([240, 960, 480])
  expect(holdNote(LINE, 0, 9999)[0]?.for).toBe(480)
  expect(holdNote(LINE, 2, 1920)[2]?.for).toBe(1920)
  expect(movePitch(LINE, null, 12).map((n) => n.pitch)).toEqual([72, 74, 76])
  expect(movePitch(LINE, 1, -1).map((n) => n.pitch)).toEqual([60, 61, 64])
  expect(removeNote(LINE, 1)).toHaveLength(2)
  expect(displaceLine(LINE, -1)).toBeNull()
  expect(displaceLine(LINE, 480)?.[0]?.at).toBe(480)
})

test('after any edit the notes are in order and none reaches over the next', () => {
  const op = fc.tuple(
    fc.constantFrom('in', 'move', 'hold'),
    fc.nat(5),
    fc.integer({ min: -2000, max: 2000 }),
    fc.integer({ min: 1, max: 1500 }),
  )
  fc.assert(
    fc.property(fc.array(op, { maxLength: 20 }), (ops) => {
      let line = LINE
      for (const [what, i, by, length] of ops) {
        if (what === 'in') line = insertNote(line, note(Math.abs(by), length, 66))
        else if (what === 'move') line = moveNote(line, i, by)
        else line = holdNote(line, i, length)
        for (const [k, n] of line.entries()) {
          expect(n.for).toBeGreaterThan(0)
          expect(endOf(n)).toBeLessThanOrEqual(line[k + 1]?.at ?? Infinity)
        }
      }
    }),
  )
})

test('a place on the staff is spelled as the scale of the chord there has it', () => {
  const over = (text: string) => timelineFrom(text)
  expect(pitchOnStaff(6, 4, 0, over('| Fmaj7#11 |'))).toMatchObject({ note: { name: 'B' }, pitch: 71 })
  expect(pitchOnStaff(6, 4, 0, over('| F7 |'))).toMatchObject({ note: { name: 'Bb' }, pitch: 70 })
  expect(pitchOnStaff(2, 5, 0, over('| Emaj7 |'))).toMatchObject({ note: { name: 'E' }, octave: 5, pitch: 76 })
  expect(pitchOnStaff(3, 4, 0, over('| N.C. |'))).toMatchObject({ note: { name: 'F' }, pitch: 65 })
})
