import { atom } from 'nanostores'
import { say } from '../page/notices.ts'
import { mixHeard } from './playing.ts'
import { handOver } from './saving.ts'
import { scoresOnce } from './stage.ts'

/** How far the sound file of the rounds is, 0..1; null where none is being made. */
export const $roundsSaved = atom<number | null>(null)

let asked = 0

/** Plays every key once round into a WAV file, as the player would, and hands it to the browser. */
export const saveRounds = async (name: string): Promise<void> => {
  const mix = mixHeard()
  const scores = scoresOnce()
  if (!mix || scores.length === 0) return say('There is nothing on the player.')
  const mine = ++asked
  $roundsSaved.set(0)
  try {
    const { wavOfRounds } = await import('../../../sound/render.ts')
    const wav = await wavOfRounds(scores, mix, {
      onProgress: (share) => mine === asked && $roundsSaved.set(share),
      wanted: () => mine === asked,
    })
    if (wav && mine === asked) handOver(wav, `${name}.wav`)
  } catch {
    if (mine === asked) say('The sound file could not be made in this browser.')
  } finally {
    if (mine === asked) $roundsSaved.set(null)
  }
}

export const cancelRounds = (): void => {
  asked++
  $roundsSaved.set(null)
}
