import { tinykeys } from 'tinykeys'
import { KEYS, PEDAL } from './keys.ts'

const TYPING = 'input:not([type="checkbox"]):not([type="radio"]), textarea, select, [contenteditable="true"]'
const OWN_KEYS = ['Enter', 'Space', 'Escape']

/** Where a key was pressed, also inside an editor that has a shadow root of its own. */
const pressedIn = (event: Event): EventTarget | null => event.composedPath()[0] ?? event.target
const isTyping = (target: EventTarget | null): boolean => target instanceof Element && target.closest(TYPING) !== null
const isControl = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest('button, a, [role="button"], input, summary') !== null
const inDialog = (): boolean => document.querySelector('dialog[open]') !== null

const SEQUENCE_MS = 1000
/** The keys pressed last: a letter right after `g` names a view and is nothing by itself. */
let before = { code: '', at: 0 }
let latest = before
const inSequence = (event: KeyboardEvent): boolean =>
  before.code === 'KeyG' && event.timeStamp - before.at < SEQUENCE_MS

const guarded =
  (key: string, act: () => void) =>
  (event: KeyboardEvent): void => {
    if (/^Key.$/.test(key) && inSequence(event)) return
    if (event.defaultPrevented || isTyping(pressedIn(event)) || inDialog()) return
    if (OWN_KEYS.includes(key) && key !== 'Escape' && isControl(event.target)) return
    event.preventDefault()
    act()
  }

/** Starts listening; gives what stops it. The pedal is heard first, whatever has focus. */
export const listenForKeys = (enabled: () => boolean): (() => void) => {
  const pedal = (event: KeyboardEvent): void => {
    before = latest
    latest = { code: isTyping(pressedIn(event)) ? '' : event.code, at: event.timeStamp }
    const act = PEDAL[event.key as keyof typeof PEDAL]
    if (!act || inDialog()) return
    event.preventDefault()
    act(event.timeStamp)
  }
  window.addEventListener('keydown', pedal, { capture: true })
  const bindings = Object.fromEntries(
    KEYS.flatMap(({ keys, act }) => keys.map((key) => [key, guarded(key, () => enabled() && act())])),
  )
  const stop = tinykeys(window, bindings)
  return () => {
    stop()
    window.removeEventListener('keydown', pedal, { capture: true })
  }
}
