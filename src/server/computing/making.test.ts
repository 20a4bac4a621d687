import { describe, expect, it } from 'vitest'
import { ANSWERS } from '../answer-schemas.ts'
import { Problem } from '../problems.ts'
import { TASKS } from './tasks.ts'

type Asked = 'make' | 'vary' | 'reuse' | 'study' | 'audit' | 'quiz'

const asked = async (task: Asked, body: object) => {
  const answer = await TASKS[task]({ query: [], body: new TextEncoder().encode(JSON.stringify(body)) })
  if (answer.kind !== 'json') throw new Error('not JSON')
  const read = JSON.parse(answer.text)
  const path = task === 'quiz' ? task : (`lines/${task}` as const)
  expect(ANSWERS[path].validate(read).error).toBeUndefined()
  return read
}
const refused = async (task: Parameters<typeof asked>[0], body: object) => {
  const problem = await asked(task, body).then(
    () => null,
    (e: unknown) => e,
  )
  if (!(problem instanceof Problem)) throw new Error(`not refused: ${JSON.stringify(body)}`)
  return [problem.errors[0]?.path, problem.errors[0]?.at]
}
const pitches = (line: { notes: readonly { pitch: number }[] }) => line.notes.map((n) => n.pitch)
const CADENCE = 'title = Gangway\n| Dm7 | G7 | Cmaj7 |'
const PLAIN = { text: CADENCE, plan: 'home', figure: '1 3 5' }

describe('lines are made', () => {
  it('through a route, landing where it is asked for', async () => {
    const { lines } = await asked('make', {
      ...{ text: CADENCE, figure: '1 2 3 5', path: 'nearest', bars: [1, 2] },
      plan: {
        route: {
          steps: [
            { bar: 1, beat: 1, overlay: 'A minor pentatonic' },
            { bar: 2, beat: 1, overlay: 'Bb minor pentatonic' },
          ],
        },
      },
      landing: { degree: '3', bar: 3, beat: 1, how: 'half step up' },
      limit: 3,
    })
    expect(lines).toHaveLength(3)
    for (const { line, groups, notes, total, terms } of lines) {
      expect((pitches(line).at(-1) ?? 0) % 12).toBe(4)
      expect(pitches(line).at(-2)).toBe((pitches(line).at(-1) ?? 0) - 1)
      expect(notes.at(-1)).toMatchObject({ bar: 3, beat: 1, degree: '3' })
      expect(groups[0]).toMatchObject({ from: 1, to: 4, of: 'A minor pentatonic' })
      expect(total).toBe(Object.values<number>(terms).reduce((a, b) => a + b))
    }
    const audit = await asked('audit', { text: CADENCE, line: lines[0].line })
    expect(audit.notes.map((n: { pitch: number }) => n.pitch)).toEqual(pitches(lines[0].line))
    expect(lines[0].abc).toContain('X:1')
  })
  it('of a pair, its triads in turn, on strings', async () => {
    const { lines } = await asked('make', {
      ...{ text: '| Cmaj7 | Cmaj7 |', plan: { pair: 'G & Am' }, figure: '1 3 5', strings: 'E2 A2 D3 G3 B3 E4' },
      ...{ rhythm: { value: '1/8t', accents: 'group starts' }, range: [45, 76] },
    })
    expect(lines[0].groups.map((g: { of: string }) => g.of).slice(0, 4)).toEqual(['G', 'Am', 'G', 'Am'])
    expect(lines[0].accents.slice(0, 3)).toEqual([1, 4, 7])
    expect(lines[0].fingering).toHaveLength(lines[0].line.notes.length)
  })
  it.each([
    [{ ...PLAIN, text: '| Hm7 |' }, 'text', 2],
    [{ ...PLAIN, figure: '1 3 x' }, 'figure', 4],
    [{ ...PLAIN, figure: '' }, 'figure', 0],
    [{ text: CADENCE, figure: '1' }, 'plan', undefined],
    [{ ...PLAIN, plan: 'nothing' }, 'plan', undefined],
    [{ ...PLAIN, plan: { pair: 'G & Hm' } }, 'plan.pair', 4],
    [{ ...PLAIN, plan: { pair: 'G' } }, 'plan.pair', undefined],
    [{ ...PLAIN, plan: { overlays: [{ bar: 1, overlay: 'Q' }] } }, 'plan.overlays.0.overlay', 0],
    [{ ...PLAIN, plan: { overlays: [{ bar: 9, overlay: 'G' }] } }, 'plan.overlays.0.bar', undefined],
    [{ ...PLAIN, rhythm: { value: '1/7' } }, 'rhythm.value', undefined],
    [{ ...PLAIN, rhythm: { rest: 'often' } }, 'rhythm.rest', undefined],
    [{ ...PLAIN, landing: { degree: 'x', bar: 1 } }, 'landing.degree', undefined],
    [{ ...PLAIN, landing: { degree: '3', bar: 7 } }, 'landing.bar', undefined],
    [{ ...PLAIN, range: [70, 60] }, 'range', undefined],
    [{ ...PLAIN, range: [60, 62] }, 'range', undefined],
    [{ ...PLAIN, strings: 'E2 H2' }, 'strings', 3],
    [{ ...PLAIN, text: '| N.C. |' }, 'plan', undefined],
    [{ ...PLAIN, bars: [1, 8] }, 'bars.1', undefined],
    [{ ...PLAIN, landing: { degree: '3', bar: 1 } }, 'landing', undefined],
    [{ ...PLAIN, rhythm: { start: 60 } }, 'rhythm.start', undefined],
  ])('%j is refused at %s', async (body, path, at) => {
    expect(await refused('make', body)).toEqual([path, at])
  })
})

const LICK = { notes: [64, 68, 71, 74, 72, 69, 66, 64].map((pitch, i) => ({ at: i * 480, for: 480, pitch })) }

const MANY = Array.from({ length: 600 }, (_, i) => ({ at: i * 240, for: 240, pitch: 60 }))

describe('lines are varied', () => {
  it.each([
    ['backwards', {}, [[64, 66, 69, 72, 74, 71, 68, 64]]],
    ['inversion', {}, [expect.any(Array), [64, 60, 57, 54, 56, 59, 62, 64]]],
    ['octave', {}, [LICK.notes.map((n) => n.pitch + 12), LICK.notes.map((n) => n.pitch - 12)]],
    ['order', { order: '2 1' }, [[68, 64, 74, 71, 69, 72, 64, 66]]],
    ['sequence', { semitones: -1, from: 1, to: 4 }, [[64, 68, 71, 74, 63, 67, 70, 73]]],
    [
      'sequence',
      { semitones: -1, times: 1 },
      [[...LICK.notes, ...LICK.notes].map((n, i) => n.pitch - (i > 7 ? 1 : 0))],
    ],
    ['targets', {}, [[64, 72, 66]]],
  ])('%s %j', async (by, more, expected) => {
    const { lines } = await asked('vary', { text: '| Am6 | Am6 |', line: LICK, by, ...more })
    expect(lines.map((l: { line: typeof LICK }) => pitches(l.line))).toEqual(expected)
  })
  it('in four ways: eighths and triplets, on and off the beat', async () => {
    const { lines } = await asked('vary', { text: '| Am6 | Am6 |', line: LICK, by: 'four ways' })
    expect(lines.map((l: { line: typeof LICK }) => l.line.notes.slice(0, 2).map((n) => n.at))).toEqual([
      [0, 480],
      [480, 960],
      [0, 320],
      [320, 640],
    ])
    expect(lines[2].meets.map((m: { n: number }) => m.n)).toEqual([1, 7])
  })
  it('cut where the chord leaves, and landed on the next', async () => {
    const { lines } = await asked('vary', { text: '| E7 Am6 |', line: LICK, by: 'cut' })
    expect(pitches(lines[0].line)).toEqual([64, 68, 71, 74, 72])
  })
  it('with approaches before its targets, and without them again', async () => {
    const line = { notes: [69, 72, 76, 79].map((pitch, i) => ({ at: i * 960, for: 960, pitch })) }
    const led = await asked('vary', { text: '| Am7 |', line, by: 'approach', approach: 'half below' })
    expect(pitches(led.lines[0].line)).toEqual([69, 71, 72, 75, 76, 78, 79])
    expect(led.lines[0].line.notes.map((n: { at: number }) => n.at)).toEqual([0, 480, 960, 1440, 1920, 2400, 2880])
  })
  it.each([
    [{ by: 'shake' }, 'by', undefined],
    [{ by: 'carry' }, 'overlay', 0],
    [{ by: 'order' }, 'order', undefined],
    [{ by: 'sequence', times: 16, line: { notes: MANY } }, 'times', undefined],
    [{ by: 'carry', overlay: 'Q' }, 'overlay', 0],
    [{ by: 'order', order: '1 4' }, 'order', undefined],
    [{ by: 'octave', from: 3, to: 9 }, 'to', undefined],
    [{ by: 'octave', line: { notes: [] } }, 'line', undefined],
  ])('%j is refused', async (more, path, at) => {
    expect(await refused('vary', { text: '| Am6 |', line: LICK, ...more })).toEqual([path, at])
  })
})

describe('a lick is used again', () => {
  it('over every chord it serves, in twelve keys, at every place of a chart', async () => {
    const text = '| Fm6 | Bb7 | Ebmaj7 | C7 |'
    const read = await asked('reuse', { line: LICK, over: 'Am6', text, order: 'fourths' })
    expect(read.parts).toEqual([
      { from: 1, to: 4, implies: 'E7' },
      { from: 5, to: 8, implies: 'Am6' },
    ])
    expect(read.keys.map((k: { semitones: number }) => k.semitones)).toEqual([0, 5, 10, 3, 8, 1, 6, 11, 4, 9, 2, 7])
    const [first] = read.places
    expect(first).toMatchObject({ bar: 1, beat: 1, chord: 'Fm6', startDegree: '5', cut: false })
    expect(pitches(first.line)).toEqual(LICK.notes.map((n) => n.pitch - 4))
  })
  it('is refused where it is no lick, or has no chord it was played on', async () => {
    expect(await refused('reuse', { line: { notes: MANY }, over: 'Am6' })).toEqual(['line', undefined])
    expect(await refused('reuse', { line: LICK, over: 'Hm' })).toEqual(['over', undefined])
    expect(await refused('reuse', { line: LICK, over: '| N.C. |' })).toEqual(['over', undefined])
  })
})

describe('a study', () => {
  it('takes a lick through the keys, with a chart of its own', async () => {
    const { text, line, title } = await asked('study', { of: { line: LICK, over: 'Am6' }, order: 'fourths', keys: 3 })
    expect(title).toContain('Am6')
    expect(text).toContain('| Am6 | Dm6 | Gm6 |')
    expect(line.notes).toHaveLength(24)
    const audit = await asked('audit', { text, line })
    const degrees = audit.notes.map((n: { degree: string }) => n.degree)
    expect(degrees.slice(8, 16)).toEqual(degrees.slice(0, 8))
    expect(degrees.slice(16)).toEqual(degrees.slice(0, 8))
  })
  it('makes its line, through keys or through a chart', async () => {
    const pair = { text: '| Cmaj7 |', plan: { pair: 'G & Am' }, figure: '1 3 5' }
    expect((await asked('study', { of: pair, keys: 2 })).text).toContain('| Cmaj7 | C#maj7 |'.replace('C#', 'Db'))
    const inWords = await asked('study', { of: 'Eb & F over F7', keys: 12, order: 'half steps' })
    expect([inWords.title, inWords.text.match(/7/g)]).toEqual([
      'Eb & F over F7, 12 keys by half steps',
      expect.any(Array),
    ])
    expect(await refused('study', { of: 'what holds 9 over F7' })).toEqual(['of', undefined])
    expect(await refused('study', { of: { plan: 'home', figure: '1 3' } })).toEqual(['text', 0])
    const sentText = await asked('study', { of: { plan: 'chord', figure: '1 3 5' }, text: CADENCE })
    expect(sentText.title).toBe('1 3 5 on the chords through Gangway')
    const whole = await asked('study', { of: { text: CADENCE, plan: 'chord', figure: '1 3 5 7' } })
    expect(whole.line.notes).toHaveLength(24)
  })
})

describe('a quiz', () => {
  it('asks what it is asked to, the same for the same seed', async () => {
    const { questions } = await asked('quiz', { topics: ['degree', 'dominants'], n: 6, seed: 9 })
    expect(questions.map((q: { kind: string }) => q.kind)).toEqual([
      'degree',
      'dominants',
      'degree',
      'dominants',
      'degree',
      'dominants',
    ])
    for (const q of questions)
      expect([q.choices.includes(q.answer), q.wrong.length]).toEqual([true, q.choices.length - 1])
    expect((await asked('quiz', { topics: ['degree', 'dominants'], n: 6, seed: 9 })).questions).toEqual(questions)
    expect((await asked('quiz', { n: 6, seed: 10 })).questions).not.toEqual(questions)
  })
  it.each([
    [{ topics: ['weather'] }, 'topics.0'],
    [{ topics: [] }, 'topics'],
    [{ n: 0 }, 'n'],
    [{ seed: 1.5 }, 'seed'],
  ])('%j is refused at %s', async (body, path) => {
    expect(await refused('quiz', body)).toEqual([path, undefined])
  })
})
