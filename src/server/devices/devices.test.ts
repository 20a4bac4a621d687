import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { openDatabase } from '../database.ts'
import type { Database } from '../sql.ts'
import { askerOf, cameFrom } from './admit.ts'
import { giveCode, readDoor, setOpen, signingKey, type Taken, takeCode } from './codes.ts'
import { cookieFor, deviceIn } from './cookie.ts'
import { isLetIn, listDevices, nameDevice, revokeDevice } from './devices.ts'
import { FROM, houseAddresses, isFromHere } from './where.mjs'

describe('where a request comes from', () => {
  const own = () => ['127.0.0.1', '192.168.7.20', 'fe80::1']
  it.each([
    ['127.0.0.1', {}, true],
    ['127.9.9.9', {}, true],
    ['::1', {}, true],
    ['::ffff:127.0.0.1', {}, true],
    ['192.168.7.20', {}, true],
    ['::ffff:192.168.7.20', {}, true],
    ['fe80::1', {}, true],
    ['192.168.7.21', {}, false],
    ['10.0.0.1', {}, false],
    ['127.quay.example', {}, false],
    [undefined, {}, false],
    ['127.0.0.1', { 'x-forwarded-for': '127.0.0.1' }, false],
    ['127.0.0.1', { forwarded: 'for=127.0.0.1' }, false],
    ['127.0.0.1', { via: '1.1 pier' }, false],
    ['127.0.0.1', { 'x-real-ip': '' }, false],
  ])('%s with %j: from this machine is %s', (remote, headers, isHere) => {
    expect(isFromHere(remote, headers, own)).toBe(isHere)
  })

  it('a telephone is told addresses of the house only, the likeliest first', () => {
    const all = [
      '127.0.0.1',
      '203.0.113.9',
      '172.16.4.4',
      '172.32.0.1',
      '100.63.0.1',
      '10.1.1.1',
      '192.168.7.20',
      'fd00::7',
    ]
    expect(houseAddresses(all)).toEqual(['192.168.7.20', '10.1.1.1', '172.16.4.4'])
    expect(houseAddresses(['127.0.0.1', '203.0.113.9'])).toEqual([])
  })
})

describe('who takes turns as one', () => {
  const from = (said: string): Request =>
    new Request('http://ferry.example/', { headers: { [FROM]: said, cookie: 'crossfade-device=gangway-9.forged' } })
  it.each([
    ['here', 'here', '127.0.0.1'],
    ['device gangway-1', 'device', 'device gangway-1'],
    ['device gangway-2', 'device', 'device gangway-2'],
  ])('the gate says %s', (said, where, asker) => {
    expect(cameFrom(from(said))).toBe(where)
    expect(askerOf(from(said), '127.0.0.1')).toBe(asker)
  })
})

describe('a cookie', () => {
  const [cookie = ''] = cookieFor('gangway-1', 'the key', false).split(';')
  it('tells the device it was signed for, among others', () => {
    expect(deviceIn(`a=b; ${cookie}; c=d`, 'the key')).toBe('gangway-1')
    expect(deviceIn(`crossfade-device=gangway-1.forged; ${cookie}`, 'the key')).toBe('gangway-1')
  })
  it.each([
    ['none', undefined],
    ['an empty one', ''],
    ['another’s name under this signature', cookie.replace('gangway-1', 'gangway-2')],
    ['a signature cut short', cookie.slice(0, -1)],
    ['no signature', 'crossfade-device=gangway-1.'],
    ['one of another name', cookie.replace('crossfade-device', 'x-crossfade-device')],
  ])('%s tells of nobody', (_, cookies) => {
    expect(deviceIn(cookies, 'the key')).toBeNull()
  })
  it('signed with another key tells of nobody, and none can be read by a page or sent by another site', () => {
    expect(deviceIn(cookie, 'another key')).toBeNull()
    expect(cookieFor('x', 'k', false)).toMatch(/; HttpOnly; SameSite=Strict; Max-Age=\d+$/)
    expect(cookieFor('x', 'k', true)).toMatch(/; Secure$/)
  })
})

const directory = mkdtempSync(join(tmpdir(), 'crossfade-devices-'))
let db: Database
beforeAll(async () => {
  db = await openDatabase(directory)
})
afterAll(async () => {
  await db.close()
  rmSync(directory, { recursive: true })
})

const START = new Date('2026-11-29T10:00:00Z')
const later = (seconds: number): Date => new Date(START.getTime() + seconds * 1000)
const other = (code: string, by = 1): string => String((Number(code) + by) % 10 ** 8).padStart(8, '0')
const kinds = async (given: readonly string[], now: Date): Promise<readonly Taken['kind'][]> => {
  const said: Taken['kind'][] = []
  for (const code of given) said.push((await takeCode(db, code, 'Stand', now)).kind)
  return said
}

describe('the door', () => {
  beforeEach(async () => {
    await db.query('delete from devices')
    await db.query('update door set open = false, code = null, code_until = null, wrong = 0, shut_until = null')
  })

  it('takes no code before one was given out', async () => {
    expect(await kinds(['00000000', '', '12345678'], START)).toEqual(['wrong', 'wrong', 'wrong'])
    expect(await listDevices(db)).toEqual([])
  })

  it('lets one device in by the code, with gaps or without, once, and for ten minutes', async () => {
    const first = await giveCode(db, START)
    expect(first).toMatch(/^\d{8}$/)
    expect(await kinds([`${first.slice(0, 4)} ${first.slice(4)}`, first], START)).toEqual(['in', 'wrong'])
    const second = await giveCode(db, START)
    expect(await kinds([second], later(600))).toEqual(['wrong'])
    const [third, fourth] = [await giveCode(db, START), await giveCode(db, START)]
    expect(await kinds(third === fourth ? [] : [third], START)).toEqual(['wrong'])
    expect(await kinds([fourth], later(599))).toEqual(['in'])
    expect((await listDevices(db)).map((d) => d.name)).toEqual(['Stand', 'Stand'])
  })

  it('is shut for a minute by ten wrong codes in a row, to the right one too', async () => {
    const code = await giveCode(db, START)
    const wrong = Array.from({ length: 10 }, (_, i) => other(code, i + 1))
    expect(await kinds(wrong, START)).toEqual([...Array(9).fill('wrong'), 'shut'])
    expect(await kinds([code], later(59))).toEqual(['shut'])
    expect(await kinds([other(code)], later(61))).toEqual(['wrong'])
    expect(await kinds([code], later(61))).toEqual(['in'])
  })

  it('a new code does not open it before its time, and ten thousand guesses within it look at ten codes', async () => {
    const code = await giveCode(db, START)
    const looked = (
      await kinds(
        Array.from({ length: 10_000 }, (_, i) => other(code, i + 1)),
        START,
      )
    ).filter((kind) => kind === 'wrong')
    expect(looked.length).toBe(9)
    expect(await kinds([await giveCode(db, later(10))], later(10))).toEqual(['shut'])
    expect(await listDevices(db)).toEqual([])
  })

  it('shut on purpose voids the code and keeps who was let in', async () => {
    const taken = await takeCode(db, await giveCode(db, START), 'Stand', START)
    const code = await giveCode(db, START)
    await setOpen(db, false)
    expect(await kinds([code], START)).toEqual(['wrong'])
    await setOpen(db, true)
    expect(await kinds([code], START)).toEqual(['wrong'])
    expect(taken.kind === 'in' && (await isLetIn(db, taken.id, START))).toBe(true)
  })

  it('knows its devices by name and last use until they are revoked', async () => {
    const taken = await takeCode(db, await giveCode(db, START), 'Stand', START)
    const id = taken.kind === 'in' ? taken.id : ''
    await nameDevice(db, id, 'Tablet at the piano')
    expect(await isLetIn(db, id, later(300))).toBe(true)
    expect(await isLetIn(db, id, later(310))).toBe(true)
    expect(await listDevices(db)).toMatchObject([{ name: 'Tablet at the piano', madeAt: START, usedAt: later(300) }])
    await revokeDevice(db, id)
    expect(await isLetIn(db, id, later(320))).toBe(false)
    for (const none of [id, 'a\u0000b', '\ud800', '']) {
      await expect(revokeDevice(db, none)).rejects.toMatchObject({ code: 'not_found' })
      await expect(nameDevice(db, none, 'x')).rejects.toMatchObject({ code: 'not_found' })
    }
  })

  it('signs with one key from first to last', async () => {
    const key = await signingKey(db)
    expect(key.length).toBeGreaterThan(40)
    expect(await signingKey(db)).toBe(key)
    expect((await readDoor(db)).key).toBe(key)
  })
})
