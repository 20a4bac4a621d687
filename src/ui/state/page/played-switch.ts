import { atom } from 'nanostores'
import type { Listener, Opened } from '../../../input/notes.ts'
import { say } from './notices.ts'

interface Switch {
  readonly open: (listener: Listener) => Promise<Opened>
  /** Told each note as it begins, a MIDI number in concert pitch. */
  readonly onPitch: (pitch: number) => void
  /** What else can be done where nothing is heard, in words. */
  readonly instead: string
  readonly onStart?: () => void
}

/** Any MIDI instrument that is connected, on any channel. */
export const anyMidi: Switch['open'] = async (listener) =>
  (await import('../../../input/midi-in.ts')).openMidi({ device: null, channel: null }, listener)

/** Listening to an instrument, on or off. */
export const playedSwitch = ({ open, onPitch, instead, onStart }: Switch) => {
  /** The instrument that is listened to; null while none is. */
  const $name = atom<string | null>(null)
  let end: (() => void) | null = null
  // Counts how often it was begun or ended, so that an instrument that answers late is not listened to.
  let turned = 0
  const stop = (): void => {
    turned++
    end?.()
    end = null
    $name.set(null)
  }
  const listener: Listener = {
    onNote: ({ kind, pitch }) => {
      if (kind === 'on') onPitch(pitch)
    },
    onLost: (why) => {
      stop()
      say(`${why} ${instead}`)
    },
  }
  const toggle = async (): Promise<void> => {
    if (end) return stop()
    const mine = ++turned
    const opened = await open(listener).catch(
      (): Opened => ({ ok: false, why: 'What listens could not be loaded: the program is not answering.' }),
    )
    if (mine !== turned) return opened.ok ? opened.instrument.stop() : undefined
    if (!opened.ok) return say(`${opened.why} ${instead}`)
    onStart?.()
    end = opened.instrument.stop
    $name.set(opened.instrument.name)
  }
  return { $name, stop, toggle }
}
