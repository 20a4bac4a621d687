import { expect, it } from 'vitest'
import { PROBLEMS, Problem, type ProblemCode, problemResponse } from './problems.ts'

it('every problem is told as problem+json with its status; what is busy says when to ask again', async () => {
  const codes = Object.keys(PROBLEMS) as ProblemCode[]
  expect(codes.length).toBeGreaterThan(15)
  for (const code of codes) {
    const response = problemResponse(new Problem(code, 'So it is.'))
    const { status } = PROBLEMS[code]
    expect([response.status, response.headers.get('content-type')]).toEqual([status, 'application/problem+json'])
    expect(await response.json()).toMatchObject({
      status,
      code,
      type: `/problems/${code}`,
      detail: 'So it is.',
      errors: [],
    })
    expect(response.headers.has('retry-after'), code).toBe(status === 503)
    expect(response.headers.get('connection') === 'close', code).toBe(status === 413)
  }
})
