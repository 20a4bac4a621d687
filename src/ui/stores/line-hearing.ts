import { midi, reverse, soundingAt, transposeChord } from '../../core/index.ts'
import { pitchPhrase } from '../../sound/sound.ts'
import { deskNow } from './actions.ts'
import { hear } from './hearing.ts'
import { $taken, goToNote } from './lines.ts'
import { $playing } from './playing.ts'
import type { Tune } from './scoring.ts'

/** Sounds a note of the line in view over its chord; while the band plays, nothing more sounds. */
const hearLineNote = (note: number): void => {
  const [heard, desk] = [$taken.get()?.audit.notes[note], deskNow()]
  const place = heard?.sounding?.place
  if (!heard || !place || !desk || $playing.get()) return
  const back = reverse(desk.instrument.written)
  void hear(pitchPhrase(midi(heard.pitch + back.semitones), transposeChord(place.chord, back)), true)
}

/** Shows a note and sounds it. */
export const tapNote = (note: number): void => {
  goToNote(note)
  hearLineNote(note)
}

/** Sounds a note that was just written, over the chord it stands on; all in concert pitch. */
export const hearWritten = ({ timeline }: Tune, at: number, pitch: number): void => {
  const chord = soundingAt(timeline, at)?.place?.chord
  if (chord && !$playing.get()) void hear(pitchPhrase(midi(pitch), chord), true)
}
