import { describe, expect, it } from 'vitest'
import { QUIZ_KIND_NAMES, QUIZ_TOPIC_NAMES, type QuizKind, type QuizQuestion, quizKinds, quizOf } from './quiz.ts'

const drawn = (seed: number): (() => number) => {
  let state = seed
  return () => {
    state = (state * 48_271) % 2_147_483_647
    return state / 2_147_483_647
  }
}

// A second, plain way: letters, signs and half steps, and nothing of the core.
const LETTERS: Readonly<Record<string, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 }
const pcOf = (name: string): number =>
  [...name].reduce((sum, sign, i) => sum + (i === 0 ? (LETTERS[sign] ?? 0) : sign === 'b' ? -1 : 1), 0)
const fold = (n: number): number => ((n % 12) + 12) % 12
const MAJOR = [0, 2, 4, 5, 7, 9, 11]
const degreeUp = (degree: string): number => {
  const [, signs = '', number = '1'] = /^([b#]*)(\d+)$/.exec(degree) ?? []
  return fold((MAJOR[(Number(number) - 1) % 7] ?? 0) + [...signs].reduce((s, c) => s + (c === 'b' ? -1 : 1), 0))
}
const rootOf = (symbol: string): number => pcOf(/^[A-G][b#]*/.exec(symbol)?.[0] ?? 'C')
const FORMULAS: Readonly<Record<string, readonly number[]>> = {
  '': [0, 4, 7],
  m: [0, 3, 7],
  '+': [0, 4, 8],
  'minor pentatonic': [0, 3, 5, 7, 10],
  'minor b5 pentatonic': [0, 3, 5, 6, 10],
  'maj7 arpeggio': [0, 4, 7, 11],
}
const overlayPcs = (name: string): readonly number[] => {
  const [, root = 'C', rest = ''] = /^([A-G][b#]*)\s*(.*)$/.exec(name) ?? []
  return (FORMULAS[rest] ?? []).map((n) => fold(pcOf(root) + n))
}
const CHORDS: Readonly<Record<string, readonly number[]>> = {
  maj7: [0, 4, 7, 11],
  m7: [0, 3, 7, 10],
  '6': [0, 4, 7, 9],
}

/** Whether a choice answers a question, worked out plainly; null where that kind has no plain way here. */
const isRight = (q: QuizQuestion, text: string): boolean | null => {
  const words = q.ask.replace(/\?$/, '')
  const grab = (pattern: RegExp): readonly string[] => pattern.exec(words)?.slice(1) ?? []
  switch (q.kind) {
    case 'degree': {
      const [note = '', chord = ''] = grab(/degree is (\S+) over (\S+)/)
      return degreeUp(text) === fold(pcOf(note) - rootOf(chord))
    }
    case 'note': {
      const [degree = '', chord = ''] = grab(/is the (\S+) of (\S+)/)
      return fold(pcOf(text) - rootOf(chord)) === degreeUp(degree)
    }
    case 'way home': {
      const [next = '', note = '', way = ''] = grab(/to (\S+): where does (\S+) go by a half step (\S+)/)
      const target = fold(pcOf(text.split(',')[0] ?? ''))
      const type = next.replace(/^[A-G][b#]*/, '')
      const isTone = (CHORDS[type] ?? []).some((n) => fold(rootOf(next) + n) === target)
      return isTone && target === fold(pcOf(note) + (way === 'up' ? 1 : -1))
    }
    case 'function': {
      const [dominant = '', next = ''] = grab(/What is (\S+) before (\S+)/)
      const up = fold(rootOf(dominant) - rootOf(next))
      const kind = { 7: 'V of', 1: 'substitute V of', 10: 'backdoor V of' }[up] ?? ''
      return text === `${kind} ${/^[A-G][b#]*/.exec(next)?.[0]}`
    }
    case 'tensions': {
      const [overlay = '', chord = ''] = grab(/tensions does (.+) make over (\S+)/)
      const ups = overlayPcs(overlay).map((pc) => fold(pc - rootOf(chord)))
      return text === 'none' ? false : text.split(' ').every((d) => ups.includes(degreeUp(d)))
    }
    case 'which overlay': {
      const [a = '', b = '', chord = ''] = grab(/makes (\S+) and (\S+) over (\S+)/)
      const ups = overlayPcs(text).map((pc) => fold(pc - rootOf(chord)))
      return ups.includes(degreeUp(a)) && ups.includes(degreeUp(b))
    }
    case 'dominants': {
      const [chord = ''] = grab(/behind (\S+)/)
      const roots = text.split(' ').map((s) => fold(rootOf(s) - rootOf(chord)))
      return [...roots].sort((x, y) => x - y).join() === '2,5,8,11'
    }
    case 'repeats': {
      const [name = ''] = grab(/does \S+ (.+) come again/)
      const period = { 'whole tone': 2, 'half-whole': 3, 'whole-half': 3, 'augmented scale': 4 }[name] ?? 12
      const said = Number(/\d+/.exec(text)?.[0] ?? 12)
      return said === period
    }
    case 'degree by ear':
      return degreeUp(text) === fold((q.hear?.[0]?.pitches[0] ?? 0) - rootOf(grab(/over (\S+)/)[0] ?? ''))
    case 'overlay by ear': {
      const sounded = new Set((q.hear?.[0]?.pitches ?? []).map(fold))
      const own = new Set(overlayPcs(text))
      return sounded.size === own.size && [...own].every((pc) => sounded.has(pc))
    }
    case 'landing by ear': {
      const [run, last] = q.hear ?? []
      const type = (last?.chord ?? '').replace(/^[A-G][b#]*/, '')
      const tones = (CHORDS[type] ?? []).map((n) => fold(rootOf(last?.chord ?? '') + n))
      const step = Math.abs((last?.pitches[0] ?? 0) - (run?.pitches.at(-1) ?? 0))
      const lands = tones.includes(fold(last?.pitches[0] ?? 0)) && step === 1
      return (text === 'it lands') === lands
    }
    default:
      return null
  }
}

describe('the quiz', () => {
  it('is asked by topics or by kinds; every kind belongs to one topic', () => {
    expect(quizKinds(['symmetric', 'note', 'harbour'])).toEqual(['note', 'dominants', 'repeats'])
    expect(QUIZ_TOPIC_NAMES.flatMap((t) => quizKinds([t])).sort()).toEqual([...QUIZ_KIND_NAMES].sort())
  })
  it('has one right answer to each of twenty thousand questions, the others wrong for a reason', () => {
    const all = quizOf(QUIZ_KIND_NAMES, 20_000, drawn(20_261_128))
    const wrong: string[] = []
    for (const q of all) {
      const right = q.choices.filter((c) => c.why === null)
      if (right.length !== 1 || right[0]?.text !== q.answer) wrong.push(`${q.ask}: not one answer`)
      if (new Set(q.choices.map((c) => c.text)).size !== q.choices.length) wrong.push(`${q.ask}: a choice twice`)
      if (q.kind === 'note' && q.choices.some((c) => c.pc !== fold(pcOf(c.text))))
        wrong.push(`${q.ask}: played wrongly`)
      if (q.choices.length < 2 || q.choices.some((c) => c.why === '')) wrong.push(`${q.ask}: nothing to choose from`)
      // Which tensions: a list of some of them is no other right answer, so only the right one is worked out again.
      for (const c of q.kind === 'tensions' ? right : q.choices) {
        const plainly = isRight(q, c.text)
        const none = q.kind === 'tensions' && c.text === 'none'
        if (plainly !== null && !none && plainly !== (c.why === null)) wrong.push(`${q.ask} ${c.text}: ${c.why}`)
      }
    }
    expect(wrong.slice(0, 10)).toEqual([])
    expect(new Set(all.map((q) => q.kind)).size).toBe(QUIZ_KIND_NAMES.length)
  })
  it.each(QUIZ_KIND_NAMES)('%s: asks many things, and the same again of the same numbers', (kind: QuizKind) => {
    const some = quizOf([kind], 200, drawn(7))
    expect(new Set(some.map((q) => q.ask + JSON.stringify(q.hear))).size).toBeGreaterThan(8)
    expect(quizOf([kind], 200, drawn(7))).toEqual(some)
  })
})
