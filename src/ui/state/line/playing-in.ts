import { anyMidi, playedSwitch } from '../page/played-switch.ts'
import { clearWriting, playInto } from './line-editing.ts'

/** Writing by what a connected instrument plays, one note after another in the length that is chosen. */
export const {
  $name: $instrument,
  stop: stopPlayingIn,
  toggle: togglePlayingIn,
} = playedSwitch({
  open: anyMidi,
  onPitch: playInto,
  instead: 'The keys and the neck beside the verdict write too.',
  onStart: clearWriting,
})
