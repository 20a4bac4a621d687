import { readdirSync } from 'node:fs'
import { expect, it } from 'vitest'
import { KIND_NAMES } from './kinds.ts'
import { openapi } from './openapi.ts'

it('the description covers every call there is, and none besides', () => {
  const files = readdirSync(new URL('../pages/api/v1', import.meta.url), { recursive: true })
    .map(String)
    .filter((file) => file.endsWith('.ts') && !file.includes('[...'))
  const calls = files
    .map(
      (file) =>
        `/${file
          .replace(/\.ts$/, '')
          .replace(/\/index$/, '')
          .replace(/\[(\w+)\]/g, '{$1}')}`,
    )
    .flatMap((call) => (call.includes('{kind}') ? KIND_NAMES.map((kind) => call.replace('{kind}', kind)) : [call]))
  expect(Object.keys(openapi('test').paths).sort()).toEqual(calls.sort())
})
