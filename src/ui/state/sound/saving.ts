import { atom } from 'nanostores'
import { say } from '../page/notices.ts'
import { mixHeard, scoreNow } from './playing.ts'

/** How far a sound file is, 0..1; null where none is being made. */
export const $rendering = atom<number | null>(null)

let asked = 0

/** Plays what would be played now into a WAV file, some times round, and hands it to the browser. */
export const saveWav = async (name: string, rounds: number): Promise<void> => {
  const now = scoreNow()
  const mix = mixHeard()
  if (!now || !mix) return say('There is no chart to play.')
  const mine = ++asked
  $rendering.set(0)
  try {
    const { wavOf } = await import('../../../sound/render.ts')
    const wav = await wavOf(now.score, mix, rounds, {
      onProgress: (part) => mine === asked && $rendering.set(part),
      wanted: () => mine === asked,
    })
    if (!wav || mine !== asked) return
    handOver(wav, `${name}.wav`)
  } catch {
    if (mine === asked) say('The sound file could not be made in this browser.')
  } finally {
    if (mine === asked) $rendering.set(null)
  }
}

/** Gives the browser a file to save. */
export const handOver = (file: Blob, name: string): void => {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(file)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}

export const cancelWav = (): void => {
  asked++
  $rendering.set(null)
}
