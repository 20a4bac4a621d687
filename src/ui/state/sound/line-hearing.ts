import { midi, reverse, soundingAt, transposeChord } from '../../../core/index.ts'
import { pitchPhrase } from '../../../sound/sound.ts'
import { $address } from '../address/address.ts'
import { $kept } from '../kept/kept.ts'
import { $written } from '../line/line-editing.ts'
import { $lineAnalysis, goToNote } from '../line/lines.ts'
import { concertTune } from '../tune/concert.ts'
import { $openChart } from '../tune/open-chart.ts'
import { hear } from './hearing.ts'
import { $playing } from './playing.ts'

/** Sounds a note of the line in view over its chord; while the band plays, nothing more sounds. */
const hearLineNote = (note: number): void => {
  const [heard, openChart] = [$lineAnalysis.get()?.audit.notes[note], $openChart.get()]
  const place = heard?.sounding?.place
  if (!heard || !place || !openChart || $playing.get()) return
  const back = reverse(openChart.instrument.written)
  void hear(pitchPhrase(midi(heard.pitch + back.semitones), transposeChord(place.chord, back)), true)
}

/** Shows a note and sounds it. */
export const tapNote = (note: number): void => {
  goToNote(note)
  hearLineNote(note)
}

/** Sounds each note that is written, over the chord it stands on. */
export const startHearingWritten = (): void => {
  $written.listen((note) => {
    const [address, kept] = [$address.get(), $kept.get()]
    const tune = address && kept && concertTune(address, kept)
    const chord = note && tune && soundingAt(tune.timeline, note.at)?.place?.chord
    if (note && chord && !$playing.get()) void hear(pitchPhrase(midi(note.pitch), chord), true)
  })
}
