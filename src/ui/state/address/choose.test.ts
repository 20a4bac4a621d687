// @vitest-environment happy-dom
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { $notice } from '../page/notices.ts'
import { redoLast, undoLast } from '../shell/undoing.ts'
import { addressAt } from '../testing/kept.ts'
import { $address, addressOf, choose, go } from './address.ts'

const now = () => addressOf($address.get() as never)
let chart = 0

beforeEach(() => {
  vi.stubGlobal(
    'fetch',
    async () => new Response(JSON.stringify({ code: 'nothing_to_undo', detail: 'Nothing.' }), { status: 409 }),
  )
  $address.set(addressAt(`/desk?chart=c${++chart}`))
})

describe('choices that live in the address', () => {
  it('are taken back one by one, by name, with the chord they were made at, and done again', async () => {
    go({ bar: 2 })
    choose('the home scale', { home: 'G altered' })
    go({ bar: 5, home: null })
    choose('the tray', { tray: ['C6'] })
    go({ view: 'pairs' })
    await undoLast()
    expect([$notice.get()?.text, $address.get()?.tray, $address.get()?.view]).toEqual(['Undone: the tray.', [], 'desk'])
    await undoLast()
    expect($notice.get()?.text).toBe('Undone: the home scale.')
    expect($address.get()).toMatchObject({ bar: 2, home: null })
    await redoLast()
    expect($address.get()).toMatchObject({ bar: 2, home: 'G altered' })
    await redoLast()
    expect($address.get()).toMatchObject({ bar: 5, tray: ['C6'] })
  })

  it('that changes nothing is no choice', async () => {
    choose('the slip', { over: 'C6' })
    choose('nothing', { over: 'C6' })
    await undoLast()
    expect($notice.get()?.text).toBe('Undone: the slip.')
  })

  it('of one word close together are one; of another word, or later, another', async () => {
    vi.useFakeTimers({ toFake: ['performance'] })
    for (const over of ['C6', 'D6', 'E6']) choose('what was laid over', { over }, 'over')
    choose(
      'the filters',
      { filters: { ...($address.get() as never as { filters: object }).filters, fadeMax: 40 } as never },
      'filters',
    )
    vi.advanceTimersByTime(5000)
    choose('what was laid over', { over: 'F6' }, 'over')
    vi.useRealTimers()
    const before = `/desk?chart=c${chart}`
    await undoLast()
    expect($address.get()).toMatchObject({ over: 'E6' })
    await undoLast()
    await undoLast()
    expect(now()).toBe(before)
  })

  it('something new forgets what could be done again', async () => {
    choose('the tray', { tray: ['C6'] })
    await undoLast()
    choose('the slip', { over: 'D6' })
    await redoLast()
    expect($address.get()).toMatchObject({ over: 'D6', tray: [] })
  })
})
