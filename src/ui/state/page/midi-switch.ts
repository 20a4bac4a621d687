import { atom } from 'nanostores'
import { say } from './notices.ts'

/** Listening to connected instruments, on or off: what is told each note, and what else can be done where none is heard. */
export const midiSwitch = (onNote: (pitch: number) => void, instead: string, onStart: () => void = () => undefined) => {
  /** The instruments that are listened to; null while none is. */
  const $names = atom<readonly string[] | null>(null)
  let end: (() => void) | null = null
  // Counts how often it was begun or ended, so that an instrument that answers late is not listened to.
  let turned = 0
  const stop = (): void => {
    turned++
    end?.()
    end = null
    $names.set(null)
  }
  const toggle = async (): Promise<void> => {
    if (end) return stop()
    const mine = ++turned
    const listening = await import('../../../input/midi-in.ts').then(
      ({ listenToMidi }) => listenToMidi(onNote),
      () => ({ ok: false, why: 'refused' }) as const,
    )
    if (mine !== turned) return listening.ok ? listening.stop() : undefined
    if (!listening.ok)
      return say(
        `${listening.why === 'none' ? 'No MIDI instrument is connected.' : 'This browser gives no MIDI.'} ${instead}`,
      )
    onStart()
    end = listening.stop
    $names.set(listening.names)
  }
  return { $names, stop, toggle }
}
