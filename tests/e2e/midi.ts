import type { Page } from '@playwright/test'

/** A MIDI instrument that is played by `strike`: to be plugged in before the page opens. */
export const plugIn = async (page: Page): Promise<void> => {
  await page.addInitScript(() => {
    const input = Object.assign(new EventTarget(), {
      id: '1',
      name: 'Dummy keys',
      manufacturer: '',
      type: 'input',
      state: 'connected',
      connection: 'open',
      version: '1',
      onmidimessage: null as ((e: { data: Uint8Array; timeStamp: number }) => void) | null,
      open: async () => input,
      close: async () => input,
    })
    const access = Object.assign(new EventTarget(), {
      inputs: new Map([['1', input]]),
      outputs: new Map(),
      sysexEnabled: false,
      onstatechange: null as ((e: unknown) => void) | null,
    })
    const send = (...data: readonly number[]): void => {
      const event = Object.assign(new Event('midimessage'), { data: new Uint8Array(data) })
      input.onmidimessage?.(event as never)
      input.dispatchEvent(event)
    }
    Object.assign(navigator, { requestMIDIAccess: async () => access })
    Object.assign(window, {
      strike: (pitch: number) => send(0x90, pitch, 90),
      /** Notes one after another, each held for most of so many ms. */
      playLine: async (pitches: readonly number[], apart: number) => {
        for (const pitch of pitches) {
          send(0x90, pitch, 90)
          await new Promise((done) => setTimeout(done, apart * 0.85))
          send(0x80, pitch, 0)
          await new Promise((done) => setTimeout(done, apart * 0.15))
        }
      },
      unplug: () => {
        access.inputs.clear()
        input.state = 'disconnected'
        input.connection = 'pending'
        access.onstatechange?.({ port: input })
        access.dispatchEvent(Object.assign(new Event('statechange'), { port: input }))
      },
    })
  })
}

export const strike = (page: Page, pitch: number): Promise<void> =>
  page.evaluate((p) => (window as unknown as { strike: (pitch: number) => void }).strike(p), pitch)

export const playLine = (page: Page, pitches: readonly number[], apart: number): Promise<void> =>
  page.evaluate(
    ([all, ms]) =>
      (window as unknown as { playLine: (pitches: readonly number[], apart: number) => Promise<void> }).playLine(
        all,
        ms,
      ),
    [pitches, apart] as const,
  )

export const unplug = (page: Page): Promise<void> =>
  page.evaluate(() => (window as unknown as { unplug: () => void }).unplug())
