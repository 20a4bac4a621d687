import { atom } from 'nanostores'
import { say } from '../page/notices.ts'
import { clearWriting, playInto } from './line-editing.ts'

/** The instruments that are listened to; null while none is. */
export const $instruments = atom<readonly string[] | null>(null)

let stop: (() => void) | null = null
/** Counts how often it was begun or ended, so that an instrument that answers late is not listened to. */
let turned = 0

export const stopPlayingIn = (): void => {
  turned++
  stop?.()
  stop = null
  $instruments.set(null)
}

/** Begins or ends writing by what a connected instrument plays, one note after another in the length that is chosen. */
export const togglePlayingIn = async (): Promise<void> => {
  if (stop) return stopPlayingIn()
  const mine = ++turned
  const listening = await import('../../../input/midi-in.ts').then(
    ({ listenToMidi }) => listenToMidi(playInto),
    () => ({ ok: false, why: 'refused' }) as const,
  )
  if (mine !== turned) return listening.ok ? listening.stop() : undefined
  if (!listening.ok)
    return say(
      listening.why === 'none'
        ? 'No MIDI instrument is connected. The keys and the neck beside the verdict write too.'
        : 'This browser gives no MIDI. The keys and the neck beside the verdict write too.',
    )
  clearWriting()
  stop = listening.stop
  $instruments.set(listening.names)
}
