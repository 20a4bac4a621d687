import { $rows } from '../kept/rows.ts'
import { say } from '../page/notices.ts'
import { $learningPedal, playingInNow, setPlayingIn } from '../takes/manner.ts'
import { pedalHere } from './hands.ts'

/** A pedal of a MIDI instrument goes on, as the page-turn pedal does; pressed while it is learnt, it is the one. */
export const startMidiPedal = (): void => {
  let isOpen = false
  const look = (): void => {
    const { pedal } = playingInNow()
    if (isOpen || (pedal === null && !$learningPedal.get())) return
    isOpen = true
    void import('../../../input/midi-in.ts').then(({ listenToPedal }) => listenToPedal(pressed))
  }
  const pressed = (controller: number, at: number): void => {
    if ($learningPedal.get()) {
      $learningPedal.set(false)
      setPlayingIn({ pedal: controller })
      return say('That pedal goes on from now on, here and on the player.', 'undo')
    }
    if (controller === playingInNow().pedal) pedalHere(1, at)
  }
  look()
  $rows.settings.listen(look)
  $learningPedal.listen(look)
}
