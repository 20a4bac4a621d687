import { say } from '../page/notices.ts'
import { anyMidi, playedSwitch } from '../page/played-switch.ts'
import { answerByPitch, questionNow } from '../practice/quiz.ts'
import { listeningFor, playingInNow } from '../takes/manner.ts'
import { $hearing } from './hearing.ts'

/** What the program sounds is heard so long after it ended, ms. */
const RINGS_MS = 400
let soundedAt = Number.NEGATIVE_INFINITY
$hearing.listen(() => {
  soundedAt = performance.now()
})

const instead = 'Digits and taps answer too.'

const onPitch = (pitch: number): void => {
  if (questionNow()?.given === null && !answerByPitch(pitch)) say('That note is none of the answers.')
}

const byMidi = playedSwitch({ open: anyMidi, onPitch, instead })

const byMicrophone = playedSwitch({
  open: async (listener) =>
    (await import('../../../input/microphone.ts')).openMicrophone(listeningFor(playingInNow()), listener),
  // What the question itself sounds is no answer.
  onPitch: (pitch) => {
    if (!$hearing.get() && performance.now() > soundedAt + RINGS_MS) onPitch(pitch)
  },
  instead,
})

/** Answering the quiz by playing, by what is played on: one of them at a time. */
export const ANSWERING = { MIDI: byMidi, microphone: byMicrophone } as const

export const stopAnswering = (): void => {
  byMidi.stop()
  byMicrophone.stop()
}

export const toggleAnswering = (by: keyof typeof ANSWERING): void => {
  const isOn = ANSWERING[by].$name.get() !== null
  stopAnswering()
  if (!isOn) void ANSWERING[by].toggle()
}
