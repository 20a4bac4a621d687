import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { setOf } from '../pitch/pcset.ts'
import type { PcSet } from '../pitch/units.ts'
import { directionBetween, motionBetween } from '../reading/seam.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import { chartOfWords, planned } from '../testing/routes.ts'
import { overlayNamed, placeNamed } from '../testing/words.ts'
import { deviceName, deviceOver, readDevice } from './device.ts'
import { inPieces } from './in-pieces.ts'
import { jointBetween, turnsOf } from './join.ts'
import { loosen } from './loosen.ts'
import { rulesOver } from './options.ts'
import { carriedBy } from './overuse.ts'
import { planRoutes } from './plan.ts'
import { giveWayIn, PLAIN_REQUEST, type RouteRequest, readRequest } from './request.ts'
import { motionName, NO_RULES, type RouteRules, readMotion } from './rules.ts'
import { changesOneNote, directionOf, motionPoints, motionsTo, movingNotes } from './seam-cost.ts'
import { slotsOf } from './slots.ts'

const TURN = chartOfWords('| Em7 | A7 | Dmaj7 | B7 |')

const waysOut = (rules: Partial<RouteRules>, slots = TURN.slots) => {
  const run = loosen(slots, { ...NO_RULES, ...rules }, DEFAULT_WEIGHTS)
  let next = run.next()
  while (!next.done) next = run.next()
  return next.value
}

describe('where no route keeps to the rules', () => {
  it('says by how much a figure must give way: at it there is a route, one short of it there is none', () => {
    const rules = { families: ['pentatonic'] as const, fadeMax: 4, landingMin: 40 }
    expect(planned(TURN.slots, rules)).toEqual([])
    const { loosen: ways } = waysOut(rules)
    const [figure] = ways.flatMap((w) => w.gives).filter((g) => g.of === 'fadeMax')
    if (figure?.of !== 'fadeMax') throw new Error('no figure')
    expect(planned(TURN.slots, { ...rules, fadeMax: figure.to }).length).toBeGreaterThan(0)
    expect(planned(TURN.slots, { ...rules, fadeMax: figure.to - 1 })).toEqual([])
    expect(ways.some((w) => w.text === `Allow a fade of ${figure.to} instead of 4 at most.`)).toBe(true)
  })
  it('names the lock, the ban, the degree, the loop or the motion that stands in the way', () => {
    const scale = { step: 1, overlay: overlayNamed('A whole tone') }
    const text = (rules: Partial<RouteRules>) => waysOut(rules).loosen.map((l) => l.text)
    const shape = {
      motion: readMotion('+1') ?? NO_RULES.motion,
      scope: 'throughout' as const,
      families: ['triad'] as const,
    }
    expect(text({ ...shape, locks: [scale] })).toContain('Take the lock off A whole tone (bar 2, A7).')
    expect(text({ ...shape, locks: [scale] })).toContain('Let the motion be free.')
    expect(text({ families: ['triad'], hold: setOf([0, 2]), fadeMax: 50 })).toContain(
      'Do not ask for the 1 on every chord.',
    )
    expect(text({ ...shape, loop: true })).toContain('Do not join the last step to the first.')
    const bans = ['Em', 'D'].map((name) => ({ step: 0, overlay: overlayNamed(name), device: null }))
    const only = { families: ['triad'] as const, fadeMax: 8, bans }
    if (planned(TURN.slots, only).length === 0) expect(text(only).some((t) => t.startsWith('Allow'))).toBe(true)
  })
  it('every way it offers does lead to a route, in words that can be sent as well', () => {
    const asked: RouteRequest = {
      ...PLAIN_REQUEST,
      families: ['triad'],
      motion: '+2',
      scope: 'throughout',
      fadeMax: 30,
      loop: true,
      hold: ['9'],
    }
    const read = readRequest(asked, 'as minor')
    if (!read.ok) throw new Error(read.error.path)
    const { loosen: ways } = waysOut(rulesOver(TURN.slots, read.value))
    expect(ways.length).toBeGreaterThan(0)
    for (const way of ways) {
      const loosened = readRequest(
        way.gives.reduce<RouteRequest>((so, g) => giveWayIn(so, g, TURN.slots), asked),
        'as minor',
      )
      expect(
        loosened.ok && planned(TURN.slots, rulesOver(TURN.slots, loosened.value)).length,
        way.text,
      ).toBeGreaterThan(0)
    }
  })
})

describe('a long planning', () => {
  it('is stopped between two pieces, and told how far it is', async () => {
    const shares: number[] = []
    let clock = 0
    const work = () => planRoutes(TURN.slots, NO_RULES, DEFAULT_WEIGHTS, { best: 5, eachSeries: false })
    const rest = async (share: number) => shares.push(share) < 4
    expect(await inPieces(work(), rest, () => (clock += 100))).toBeNull()
    expect(shares).toHaveLength(4)
    expect(shares).toEqual([...shares].sort((a, b) => a - b))
    const whole = await inPieces(
      work(),
      async () => true,
      () => (clock += 100),
    )
    expect(whole?.map((r) => r.total)).toEqual(planned(TURN.slots, {}, 5).map((r) => r.total))
  })
})

describe('seams', () => {
  const anySet = fc.integer({ min: 1, max: 4095 }).map((n) => n as PcSet)
  it('cost what the pairing says, looked up or not, one by one or in a row', () => {
    fc.assert(
      fc.property(anySet, fc.array(anySet, { minLength: 1, maxLength: 6 }), (to, from) => {
        const row = motionsTo(to, Uint16Array.from(from))
        for (const set of from) {
          const points = Math.round(10 * motionBetween(set, to))
          expect([motionPoints(set, to), motionPoints(to, set), row[set]]).toEqual([points, points, points])
          expect([directionOf(set, to), directionOf(to, set)]).toEqual([
            directionBetween(set, to),
            directionBetween(to, set),
          ])
        }
      }),
    )
  })
  it('count the notes that move', () => {
    const set = (name: string) => overlayNamed(name).set
    expect(movingNotes(set('C'), set('Am'))).toBe(1)
    expect(movingNotes(set('C major pentatonic'), set('C ionian'))).toBe(2)
    expect([
      changesOneNote(set('C'), set('Em')),
      changesOneNote(set('C'), set('C')),
      changesOneNote(set('C'), set('Cmaj7 arpeggio')),
    ]).toEqual([true, false, false])
  })
  it('tell the best note to leave from, by direction', () => {
    const into = (name: string, chord: string) => ({
      overlay: overlayNamed(name),
      slot: { chord: placeNamed(chord).chord },
    })
    const joint = jointBetween(overlayNamed('D minor pentatonic'), into('D# minor pentatonic', 'Emaj7'))
    expect(joint.up).toMatchObject({
      from: { name: 'D' },
      to: { name: 'D#' },
      how: 'half step up',
      degree: '7',
      guide: true,
    })
    expect(joint.down).toMatchObject({
      from: { name: 'A' },
      to: { name: 'G#' },
      how: 'half step down',
      degree: '3',
      guide: true,
    })
    expect([joint.stay, joint.direction, joint.motion]).toEqual([null, 1, 1])
    const held = jointBetween(overlayNamed('Em'), into('C', 'Cmaj7'))
    expect(held.stay).toMatchObject({ from: { name: 'E' }, degree: '3', guide: true })
  })
  it('mark where a route turns, level seams passed over', () => {
    expect(turnsOf(([1, 1, 0, -1, 0, -1, 1] as const).map((direction) => ({ direction })))).toEqual([
      false,
      false,
      false,
      true,
      false,
      false,
      true,
    ])
  })
})

describe('devices', () => {
  it.each([
    ['D minor pentatonic', 'B7', 'minor pentatonic on b3'],
    ['Ab', 'Gmaj7', 'major triad on b9'],
    ['F & G', 'C7', 'major triad & major triad 2 apart on 11'],
    ['C half-whole', 'C7', 'half-whole on 1'],
  ])('%s over %s is the %s', (overlay, chord, name) => {
    expect(deviceName(deviceOver(overlayNamed(overlay), placeNamed(chord).chord))).toBe(name)
    expect(readDevice(name)).toEqual(deviceOver(overlayNamed(overlay), placeNamed(chord).chord))
  })
  it('is read by any name of its degree, and nothing else is', () => {
    expect(readDevice('minor pentatonic on #9')).toEqual(readDevice('minor pentatonic on b3'))
    expect([readDevice('minor pentatonic'), readDevice(' on 3'), readDevice('x on h')]).toEqual([null, null, null])
  })
  it('carry too much where most colour is one of them; the next best goes without', () => {
    const used = (name: string, fade: number) => ({ device: readDevice(name) ?? { formula: '', up: 0 }, fade })
    const trick = Array(4).fill(used('whole tone on 1', 40))
    expect(carriedBy([...trick, used('m on 5', 30), used('m on 9', 10)])).toMatchObject({ steps: 4, of: 5 })
    expect(carriedBy([used('m on 5', 30), used('m on 5', 30)])).toBeNull()
    expect(carriedBy(Array(9).fill(used('m on 5', 10)))).toBeNull()
    const arc = TURN.slots.map(() => 45)
    const [best] = planned(TURN.slots, { arc }, 1)
    const device = deviceName(best?.steps[1]?.device ?? { formula: '', up: 0 })
    const [without] = planned(TURN.slots, { arc, bans: [{ step: null, overlay: null, device }] }, 1)
    expect(without?.steps.map((s) => deviceName(s.device))).not.toContain(device)
    expect(without?.total).toBeGreaterThanOrEqual(best?.total ?? 0)
  })
})

describe('a request in words', () => {
  it('names the field that does not read', () => {
    const wrong = (change: object) => {
      const read = readRequest({ ...PLAIN_REQUEST, ...change }, 'as minor')
      return read.ok ? null : [read.error.path, read.error.error.found]
    }
    expect(wrong({ motion: 'sideways' })).toEqual(['motion', 'sideways'])
    expect(wrong({ scope: 'here' })).toEqual(['motionScope', 'here'])
    expect(wrong({ families: ['triad', 'quintad'] })).toEqual(['families', 'quintad'])
    expect(wrong({ locks: [{ bar: 1, beat: 1, overlay: 'D minor pentatnic' }] })?.[0]).toBe('lock.0.overlay')
    expect(wrong({ bans: [{ device: 'a trick' }] })).toEqual(['ban.0.device', 'a trick'])
    expect(wrong({ bans: [{}] })?.[0]).toBe('ban.0')
    expect(wrong({})).toBeNull()
  })
  it.each(['+1', '-1', '+7', '-11', 'constant', 'one-note', 'contrary', 'fewest', 'free'])('%s is a motion', (name) => {
    expect(motionName(readMotion(name) ?? { kind: 'free' })).toBe(name)
  })
  it.each(['+0', '12', '+-1', '', '1.5', 'Free'])('%s is none', (name) => expect(readMotion(name)).toBeNull())
  it('keeps to its bars, and a wish for a spot is a wish for both its parts', () => {
    const { analysis } = TURN
    const asked = {
      ...PLAIN_REQUEST,
      bars: [2, 3] as const,
      cuts: [{ bar: 2, beat: 1, at: 3 }],
      arc: [{ bar: 2, beat: 1, fade: 40 }],
    }
    const read = readRequest(asked, 'as minor')
    if (!read.ok) throw new Error(read.error.path)
    const slots = slotsOf(analysis, [], placeNamed('C').school, read.value.slots)
    expect(slots.map((s) => [s.bar, s.beat, s.place.next?.symbol])).toEqual([
      [2, 1, 'A7'],
      [2, 3, 'Dmaj7'],
      [3, 1, 'B7'],
    ])
    expect(rulesOver(slots, read.value).arc).toEqual([40, 40, null])
  })
})
