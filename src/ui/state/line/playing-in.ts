import { midiSwitch } from '../page/midi-switch.ts'
import { clearWriting, playInto } from './line-editing.ts'

/** Writing by what a connected instrument plays, one note after another in the length that is chosen. */
export const {
  $names: $instruments,
  stop: stopPlayingIn,
  toggle: togglePlayingIn,
} = midiSwitch(playInto, 'The keys and the neck beside the verdict write too.', clearWriting)
