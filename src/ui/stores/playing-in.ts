import { atom } from 'nanostores'
import { clearWriting, playInto } from './line-editing.ts'
import { say } from './notices.ts'

/** The instruments that are listened to; null while none is. */
export const $instruments = atom<readonly string[] | null>(null)

let stop: (() => void) | null = null

export const stopPlayingIn = (): void => {
  stop?.()
  stop = null
  $instruments.set(null)
}

/** Begins or ends writing by what a connected instrument plays, one note after another in the length that is chosen. */
export const turnPlayingIn = async (): Promise<void> => {
  if (stop) return stopPlayingIn()
  const { listenToMidi } = await import('../../input/midi-in.ts')
  const listening = await listenToMidi(playInto)
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
