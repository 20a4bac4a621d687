import { atom } from 'nanostores'
import type { Rendering } from '../../../sound/render.ts'
import { secondsOf } from '../../../sound/score.ts'
import type { TakeRow } from '../kept/row-types.ts'
import { say } from '../page/notices.ts'
import { $howHeard, barsRound, takeScore } from './listening-back.ts'
import { mixHeard, scoreNow } from './playing.ts'
import { scoresOnce } from './stage.ts'

type Renderer = typeof import('../../../sound/render.ts')

/** Gives the browser a file to save. */
const handOver = (file: Blob, name: string): void => {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(file)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}

/** The making of sound files, one at a time: how far it is, and what stops it. */
const wavMaker = () => {
  /** 0..1; null where none is being made. */
  const $share = atom<number | null>(null)
  let asked = 0
  const make = async (name: string, render: (by: Renderer, how: Rendering) => Promise<Blob | null>): Promise<void> => {
    const mine = ++asked
    const wanted = (): boolean => mine === asked
    $share.set(0)
    try {
      const wav = await render(await import('../../../sound/render.ts'), {
        onProgress: (part) => wanted() && $share.set(part),
        wanted,
      })
      if (wav && wanted()) handOver(wav, `${name}.wav`)
    } catch {
      if (wanted()) say('The sound file could not be made in this browser.')
    } finally {
      if (wanted()) $share.set(null)
    }
  }
  const cancel = (): void => {
    asked++
    $share.set(null)
  }
  return { $share, make, cancel }
}

const ofBand = wavMaker()
const ofRounds = wavMaker()
const ofTake = wavMaker()
export const { $share: $takeSaved, cancel: cancelTakeWav } = ofTake
export const { $share: $rendering, cancel: cancelWav } = ofBand
export const { $share: $roundsSaved, cancel: cancelRounds } = ofRounds

/** Plays what would be played now into a WAV file, some times round, and hands it to the browser. */
export const saveWav = async (name: string, rounds: number): Promise<void> => {
  const [now, mix] = [scoreNow(), mixHeard()]
  if (!now || !mix) return say('There is no chart to play.')
  await ofBand.make(name, ({ wavOf }, how) => wavOf(now.score, mix, rounds, how))
}

/** A take into a WAV file: its own sound where it has one, else its notes with the band. */
export const saveTake = async (row: TakeRow): Promise<void> => {
  const mix = mixHeard()
  const score = takeScore(row, barsRound(row, null), { ...$howHeard.get(), sound: false, rate: 1 })
  if (!mix || !score) return say('There is nothing to write.')
  await ofTake.make(row.name, async ({ wavOf, wavOfBuffer }, how) => {
    if (row.sound) {
      const { takeSound } = await import('../../../sound/take-sound.ts')
      const buffer = await takeSound(row.id, 0, secondsOf(score) * 1000 - row.soundFrom + TAIL_MS)
      if (buffer) return wavOfBuffer(buffer)
    }
    return wavOf(score, mix, 1, how)
  })
}
const TAIL_MS = 2000

/** Plays every key once round into a WAV file, as the player would, and hands it to the browser. */
export const saveRounds = async (name: string): Promise<void> => {
  const [scores, mix] = [scoresOnce(), mixHeard()]
  if (!mix || scores.length === 0) return say('There is nothing on the player.')
  await ofRounds.make(name, ({ wavOfRounds }, how) => wavOfRounds(scores, mix, how))
}
