import { midi } from '../../../core/index.ts'
import { inTurn, notePhrase, overlayPhrase } from '../../../sound/sound.ts'
import { $openChart, type OpenChart } from '../tune/open-chart.ts'
import { hear } from './hearing.ts'

const mannerOf = ({ settings }: OpenChart) => ({ as: settings.hearAs, tempo: settings.hearTempo })

export const hearOverlay = (): void => {
  const openChart = $openChart.get()
  const concert = openChart?.concert
  if (concert && openChart) void hear(overlayPhrase(concert.overlay, concert.chord, mannerOf(openChart)))
}

/** One note of the overlay, by its place in it. */
export const hearNote = (index: number): void => {
  const concert = $openChart.get()?.concert
  const note = concert?.overlay.notes[index]
  if (concert && note) void hear(notePhrase(note.pc, concert.chord))
}
/** Written pitches one after another over the chord. */
export const hearPitches = (pitches: readonly number[]): void => {
  const openChart = $openChart.get()
  if (!openChart?.concert) return
  const down = openChart.instrument.written.semitones
  void hear(
    inTurn(
      pitches.map((p) => midi(p - down)),
      openChart.concert.chord,
      openChart.settings.hearTempo,
    ),
  )
}
