import { midiSwitch } from '../page/midi-switch.ts'
import { say } from '../page/notices.ts'
import { answerByPitch, questionNow } from './quiz.ts'

const played = (pitch: number): void => {
  if (questionNow()?.given === null && !answerByPitch(pitch)) say('That note is none of the answers.')
}

/** Answering the quiz by what a connected instrument plays. */
export const {
  $names: $answering,
  stop: stopAnswering,
  toggle: toggleAnswering,
} = midiSwitch(played, 'Digits and taps answer too.')
