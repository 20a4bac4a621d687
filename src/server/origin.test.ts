import { describe, expect, it } from 'vitest'
import { isServedHost, mayRead, mayWrite, servedHosts } from './origin.ts'

const HOSTS = servedHosts({}, ['192.168.7.20', 'fd00::7'])
const write = (headers: Record<string, string>) =>
  mayWrite(new Request('http://127.0.0.1:4321/api/v1/ideas', { method: 'POST', headers }), HOSTS)

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

  it.each([
    ['/api/v1/ask?q=E', 'cross-site', false],
    ['/api/v1/ask?q=E', 'same-site', false],
    ['/api/v1/ask?q=E', 'same-origin', true],
    ['/api/v1/ask?q=E', 'none', true],
    ['/api/v1/ask?q=E', null, true],
    ['/desk?over=E', 'cross-site', true],
  ])('%s asked from %s: answered is %s', (path, site, may) => {
    const headers = { host: '127.0.0.1:4321', ...(site === null ? {} : { 'sec-fetch-site': site }) }
    expect(mayRead(new Request(`http://127.0.0.1:4321${path}`, { headers }))).toBe(may)
  })

  it('answers to its own names only, and to a name let in on purpose', () => {
    for (const host of ['127.0.0.1:4321', 'localhost:4321', '192.168.7.20:4321', '[fd00::7]:4321'])
      expect(isServedHost(host, HOSTS), host).toBe(true)
    for (const host of ['quay.example:4321', '192.168.7.21:4321', '192.168.7.20.quay.example', null])
      expect(isServedHost(host, HOSTS), String(host)).toBe(false)
    expect(isServedHost('stand.local:4321', servedHosts({ HOST: 'stand.local' }, []))).toBe(true)
    expect(isServedHost('Pier.example', servedHosts({ HOST: '0.0.0.0', CROSSFADE_NAME: 'pier.example' }, []))).toBe(
      true,
    )
    expect(isServedHost('quay.example', servedHosts({ HOST: '0.0.0.0' }, []))).toBe(false)
  })
})
