import { atom } from 'nanostores'
import type { Phrase } from '../../../sound/sound.ts'
import { say } from '../page/notices.ts'

/** Whether something sounds that can be stopped. */
export const $hearing = atom<boolean>(false)

/** The player is loaded at the first sound, so that the page does not wait for it. */
const player = () => import('../../../sound/player.ts')
let asked = 0

/** Sounds a phrase; one that is only an aside to something else done is over by itself, and Space still begins to play. */
export const hear = async (phrase: Phrase, passing = false): Promise<void> => {
  const mine = ++asked
  $hearing.set(!passing)
  try {
    const { play } = await player()
    if (mine !== asked) return
    await play(phrase, () => mine === asked && $hearing.set(false))
  } catch {
    $hearing.set(false)
    if (!passing) say('This browser gives no sound. Everything else works without it.')
  }
}

export const silence = async (): Promise<void> => {
  if (asked === 0) return
  asked++
  $hearing.set(false)
  // What never came makes no sound either.
  await player().then(
    ({ stop }) => stop(),
    () => undefined,
  )
}
