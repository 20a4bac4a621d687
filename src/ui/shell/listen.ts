import { tinykeys } from 'tinykeys'
import { KEYS, PEDAL } from './keys.ts'

const TYPING = 'input:not([type="checkbox"], [type="radio"], [type="range"]), textarea, [contenteditable="true"]'
/** Keys that sliders and choices have themselves; letters there act as everywhere. */
const SETTING = 'select, input[type="range"]'
const SETTING_KEYS = /^(Arrow|Home$|End$|Space$|Enter$)/
const OWN_KEYS = ['Enter', 'Space']

/** Where a key was pressed, also inside an editor that has a shadow root of its own. */
const pressedIn = (event: Event): EventTarget | null => event.composedPath()[0] ?? event.target
const isTyping = (target: EventTarget | null): boolean => target instanceof Element && target.closest(TYPING) !== null
const isSetting = (target: EventTarget | null): boolean => target instanceof Element && target.closest(SETTING) !== null
const isControl = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest('button, a, [role="button"], input, summary') !== null
const inDialog = (): boolean => document.querySelector('dialog[open]') !== null

const SEQUENCE_MS = 1000
/** The keys pressed last: a letter right after `g` names a view and is nothing by itself. */
let before = { code: '', at: 0 }
let latest = before
const inSequence = (event: KeyboardEvent): boolean =>
  before.code === 'KeyG' && event.timeStamp - before.at < SEQUENCE_MS

/** Letters that were kept from a choice, and act as keys. */
const ours = new WeakSet<Event>()

const guarded =
  (key: string, act: () => void) =>
  (event: KeyboardEvent): void => {
    if (/^Key.$/.test(key) && inSequence(event)) return
    const target = pressedIn(event)
    if ((event.defaultPrevented && !ours.has(event)) || inDialog()) return
    if (isTyping(target) && key !== 'Escape') return
    if (isSetting(target) && SETTING_KEYS.test(key)) return
    if (OWN_KEYS.includes(key) && isControl(event.target)) return
    event.preventDefault()
    act()
  }

/** Starts listening; gives what stops it. The pedal is heard first, whatever has focus. */
export const listenForKeys = (enabled: () => boolean): (() => void) => {
  const pedal = (event: KeyboardEvent): void => {
    before = latest
    latest = { code: isTyping(pressedIn(event)) ? '' : event.code, at: event.timeStamp }
    // A choice would go to the entry that begins with the letter.
    const bare = !event.ctrlKey && !event.metaKey && !event.altKey
    if (enabled() && bare && /^Key.$/.test(event.code) && isSetting(pressedIn(event))) {
      event.preventDefault()
      ours.add(event)
    }
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
