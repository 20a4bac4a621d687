import { atom } from 'nanostores'

/** The instruments that are plugged in; null where the browser gives no MIDI, undefined before it was asked. */
export const $midiNames = atom<readonly string[] | null | undefined>(undefined)

/** Follows what is plugged in and out. Gives what ends it. */
export const watchMidiNames = (): (() => void) => {
  let ended = false
  let stop = (): void => undefined
  void import('../../../input/midi-in.ts').then(({ midiNames, onMidiChange }) => {
    const look = (): void => void midiNames().then((names) => !ended && $midiNames.set(names))
    if (ended) return
    look()
    stop = onMidiChange(look)
  })
  return () => {
    ended = true
    stop()
  }
}
