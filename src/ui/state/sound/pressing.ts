import { midi, pitchClass } from '../../../core/index.ts'
import { pitchPhrase } from '../../../sound/sound.ts'
import { $picking, pick } from '../desk/picking.ts'
import { $openChart } from '../tune/open-chart.ts'
import { hear } from './hearing.ts'

/** A key, a fret or a head was pressed; the pitch is the written one. */
export const pressPitch = (pitch: number): void => {
  const openChart = $openChart.get()
  if (!openChart?.concert) return
  void hear(pitchPhrase(midi(pitch - openChart.instrument.written.semitones), openChart.concert.chord))
  if ($picking.get()) pick(pitchClass(pitch), openChart)
}
