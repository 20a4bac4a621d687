import { atom } from 'nanostores'
import type { Phrase } from '../../sound/sound.ts'
import { say } from './notices.ts'

/** Whether something sounds that one may want to stop; a single note is over by itself. */
export const $hearing = atom<boolean>(false)

/** The player is loaded at the first sound, so that the page does not wait for it. */
const player = () => import('../../sound/player.ts')
let asked = 0

export const hear = async (phrase: Phrase): Promise<void> => {
  const mine = ++asked
  $hearing.set(phrase.notes.length > 1)
  try {
    const { play } = await player()
    if (mine !== asked) return
    await play(phrase, () => mine === asked && $hearing.set(false))
  } catch {
    $hearing.set(false)
    say('This browser gives no sound. Everything else works without it.')
  }
}

export const silence = async (): Promise<void> => {
  if (asked === 0) return
  asked++
  $hearing.set(false)
  const { stop } = await player()
  stop()
}
