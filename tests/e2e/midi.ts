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
      onstatechange: null,
    })
    Object.assign(navigator, { requestMIDIAccess: async () => access })
    Object.assign(window, {
      strike: (pitch: number) => {
        const event = Object.assign(new Event('midimessage'), { data: new Uint8Array([0x90, pitch, 90]) })
        input.onmidimessage?.(event as never)
        input.dispatchEvent(event)
      },
    })
  })
}

export const strike = (page: Page, pitch: number): Promise<void> =>
  page.evaluate((p) => (window as unknown as { strike: (pitch: number) => void }).strike(p), pitch)
