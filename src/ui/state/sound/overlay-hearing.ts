import { type Chord, midi, reverse, transposeChord } from '../../../core/index.ts'
import { inTurnOver, notePhrase, overlayPhrase } from '../../../sound/sound.ts'
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
/** Written pitches one after another, each part over its own chord (written). */
export const hearParts = (parts: readonly { readonly chord: Chord; readonly pitches: readonly number[] }[]): void => {
  const openChart = $openChart.get()
  if (!openChart) return
  const { written } = openChart.instrument
  const phrase = inTurnOver(
    parts.map(({ chord, pitches }) => ({
      chord: transposeChord(chord, reverse(written)),
      pitches: pitches.map((p) => midi(p - written.semitones)),
    })),
    openChart.settings.hearTempo,
  )
  if (phrase) void hear(phrase)
}
