import { describe, expect, it } from 'vitest'
import { isServedHost, mayWrite, servedHosts } from './origin.ts'

const write = (headers: Record<string, string>) =>
  mayWrite(new Request('http://127.0.0.1:4321/api/v1/ideas', { method: 'POST', headers }), servedHosts(undefined))

describe('who may write', () => {
  it.each([
    ['a script, which sends no origin', { host: '127.0.0.1:4321' }, true],
    ['a page of this server', { host: '127.0.0.1:4321', origin: 'http://127.0.0.1:4321' }, true],
    ['the same by its other name', { host: '127.0.0.1:4321', origin: 'http://localhost:4321' }, true],
    ['another port of this machine', { host: '127.0.0.1:4321', origin: 'http://127.0.0.1:9999' }, false],
    ['another site', { host: '127.0.0.1:4321', origin: 'http://quay.example' }, false],
    ['an opaque origin', { host: '127.0.0.1:4321', origin: 'null' }, false],
    [
      'a browser that hides the origin but says cross-site',
      { host: '127.0.0.1:4321', 'sec-fetch-site': 'cross-site' },
      false,
    ],
  ])('%s', (_, headers, may) => {
    expect(write(headers)).toBe(may)
  })

  it('answers to its own names only, and to a name let in on purpose', () => {
    expect(isServedHost('127.0.0.1:4321', servedHosts(undefined))).toBe(true)
    expect(isServedHost('quay.example:4321', servedHosts(undefined))).toBe(false)
    expect(isServedHost(null, servedHosts(undefined))).toBe(false)
    expect(isServedHost('stand.local:4321', servedHosts('stand.local'))).toBe(true)
    expect(isServedHost('quay.example', servedHosts('0.0.0.0'))).toBe(false)
  })
})
