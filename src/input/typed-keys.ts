import type { Listener, Opened } from './notes.ts'

/** The computer's keys as two rows of an instrument, by key code: semitones above the lowest C. */
export const TYPED_KEYS: Readonly<Record<string, number>> = Object.fromEntries(
  [
    ...['KeyZ', 'KeyS', 'KeyX', 'KeyD', 'KeyC', 'KeyV', 'KeyG', 'KeyB', 'KeyH', 'KeyN', 'KeyJ', 'KeyM'],
    ...['KeyQ', 'Digit2', 'KeyW', 'Digit3', 'KeyE', 'KeyR', 'Digit5', 'KeyT', 'Digit6', 'KeyY', 'Digit7', 'KeyU'],
    ...['KeyI', 'Digit9', 'KeyO', 'Digit0', 'KeyP'],
  ].map((code, up) => [code, up]),
)

const VELOCITY = 0.7
const isField = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))

/** Hears the computer's keys as notes from a C (a MIDI number) upward; while it listens they do nothing else. */
export const openTypedKeys = (low: () => number, { onNote }: Listener): Opened => {
  const held = new Map<string, number>()
  const down = (e: KeyboardEvent): void => {
    const up = TYPED_KEYS[e.code]
    if (up === undefined || e.ctrlKey || e.metaKey || e.altKey || isField(e.target)) return
    e.preventDefault()
    e.stopPropagation()
    if (e.repeat || held.has(e.code)) return
    const pitch = low() + up
    held.set(e.code, pitch)
    onNote({ kind: 'on', pitch, velocity: VELOCITY, at: e.timeStamp })
  }
  const up = (e: KeyboardEvent): void => {
    const pitch = held.get(e.code)
    if (pitch === undefined) return
    held.delete(e.code)
    onNote({ kind: 'off', pitch, velocity: 0, at: e.timeStamp })
  }
  window.addEventListener('keydown', down, { capture: true })
  window.addEventListener('keyup', up, { capture: true })
  const stop = (): void => {
    window.removeEventListener('keydown', down, { capture: true })
    window.removeEventListener('keyup', up, { capture: true })
  }
  return { ok: true, instrument: { name: 'keys', stream: null, stop } }
}
