import fc from 'fast-check'
import Joi from 'joi'
import { describe, expect, it } from 'vitest'
import { checkJson, checkQuery } from './check.ts'
import { Problem } from './problems.ts'

const ANY = Joi.any() as unknown as Joi.ObjectSchema<unknown>
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text)
const refusal = (work: () => unknown): Problem | null => {
  try {
    work()
    return null
  } catch (error) {
    if (error instanceof Problem) return error
    throw error
  }
}

describe('a body', () => {
  it('is JSON of any kind, and what was sent', () => {
    fc.assert(
      fc.property(fc.jsonValue({ maxDepth: 6 }), (value) => {
        const text = JSON.stringify(value)
        const odd = /\\u0000|\\ud[89a-f]/i.test(text)
        if (!odd) expect(checkJson(bytes(text), ANY)).toEqual(JSON.parse(text))
      }),
    )
  })
  it.each([
    ['{"a":{"b":["x\\u0000"]}}', 'a.b.0'],
    ['{"a":"\\ud83d"}', 'a'],
    ['{"a":{"\\udc00":1}}', 'a'],
    ['"\\u0000"', ''],
  ])('with a text nobody can write is refused where it stands: %s', (text, path) => {
    const problem = refusal(() => checkJson(bytes(text), ANY))
    expect([problem?.code, problem?.errors[0]?.path]).toEqual(['bad_request', path])
  })
  it('is refused when it is nested deeper than any of ours, however deep, and in names as in lists', () => {
    const deep = (n: number): string => `${'['.repeat(n)}${']'.repeat(n)}`
    expect(refusal(() => checkJson(bytes(deep(32)), ANY))).toBeNull()
    for (const text of [deep(33), deep(200_000), `${'{"a":'.repeat(5000)}1${'}'.repeat(5000)}`])
      expect(refusal(() => checkJson(bytes(text), ANY))?.detail).toContain('nested more than 32 deep')
  })
  it.each(['', '{', '\ufeff{}', 'NaN', "{'a':1}"])('that is no JSON is refused: %j', (text) => {
    expect(refusal(() => checkJson(bytes(text), ANY))?.code ?? 'taken').toBe(
      text === '\ufeff{}' ? 'taken' : 'bad_request',
    )
  })
  it('in half a character of UTF-8 is no JSON', () => {
    expect(refusal(() => checkJson(new Uint8Array([0x22, 0xc3, 0x22]), ANY))?.code).toBe('bad_request')
  })
})

it('a parameter given twice, or that nobody can write, is refused by its name', () => {
  const schema = Joi.object({ q: Joi.string() })
  expect(checkQuery([['q', 'B♭ 𝄫']], schema)).toEqual({ q: 'B♭ 𝄫' })
  for (const query of [
    [
      ['q', 'a'],
      ['q', 'b'],
    ],
    [['q', 'a\u0000']],
    [['q', '\ud800']],
  ] as const)
    expect(refusal(() => checkQuery(query, schema))?.errors[0]?.path).toBe('q')
})
