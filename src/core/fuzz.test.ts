import { describe, expect, it } from 'vitest'
import { printQuestion, readQuestion } from './ask/question.ts'
import { readChord } from './chord/parse.ts'
import { USUAL_SPELLINGS } from './chord/spellings.ts'
import { MATERIALS, nameOn } from './material/material.ts'
import { DEFAULT_SCHOOL } from './reading/school.ts'

const COUNT = 100_000

/** A small seeded generator, so that a failure can be had again. */
const seeded = (seed: number) => {
  let state = seed
  const next = (): number => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 4294967296
  }
  return <T>(from: readonly T[]): T => from[Math.floor(next() * from.length)] as T
}

const pick = seeded(20261125)
const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B', 'C#', 'G#', 'Cb']
const SIGNS = [...'ABCDEFGHabdgijmnosu#b♭♯𝄪79613+-()/|,& °øΔ']

const validChord = (): string => pick(ROOTS) + pick(USUAL_SPELLINGS) + pick(['', '', '', `/${pick(ROOTS)}`])
const validQuestion = (): string => {
  const over = `${nameOn(pick(ROOTS), pick(MATERIALS))} over ${validChord()}`
  return pick([
    over,
    `${over} to ${validChord()}`,
    `${pick(ROOTS)} & ${pick(ROOTS)}m over ${validChord()}`,
    validChord(),
  ])
}
const edited = (text: string): string => {
  const at = pick(Array.from({ length: text.length + 1 }, (_, i) => i))
  return pick([text.slice(0, at) + pick(SIGNS) + text.slice(at), text.slice(0, at) + text.slice(at + 1)])
}
const noise = (): string => Array.from({ length: pick([1, 2, 3, 5, 8, 13, 21]) }, () => pick(SIGNS)).join('')

/** One text in four is valid, one is an edit away from valid, two are noise or noisier. */
const sample = (valid: () => string): string =>
  pick([valid, () => edited(valid()), () => edited(edited(noise())), noise])()

describe('a hundred thousand texts', () => {
  it('are read or refused: no exception, every error within the text, and what is printed reads the same', () => {
    let read = 0
    for (let i = 0; i < COUNT; i++) {
      const asChord = i % 2 === 0
      const text = asChord ? sample(validChord) : sample(validQuestion)
      const result = asChord ? readChord(text) : readQuestion(text, DEFAULT_SCHOOL)
      if (!result.ok) {
        const { at } = result.error
        if (at < 0 || at > text.length) throw new Error(`${JSON.stringify(text)}: error at ${at}`)
        continue
      }
      read++
      const { value } = result
      const printed = 'symbol' in value ? value.symbol : printQuestion(value)
      const again = asChord ? readChord(printed) : readQuestion(printed, DEFAULT_SCHOOL)
      const printedAgain = again.ok && ('symbol' in again.value ? again.value.symbol : printQuestion(again.value))
      if (printedAgain !== printed)
        throw new Error(`${JSON.stringify(text)} prints ${printed}, which reads as ${printedAgain}`)
    }
    expect(read / COUNT).toBeGreaterThan(0.3)
  })
})
