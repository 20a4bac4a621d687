import { atom } from 'nanostores'
import { beatOf, heardLine, midi, sameBeat, ticks } from '../../../core/index.ts'
import type { NoteIn } from '../../../input/notes.ts'
import type { PlayedNow } from '../../figures/PlayedTab.tsx'
import { $address } from '../address/address.ts'
import { $kept } from '../kept/kept.ts'
import { concertTune } from '../tune/concert.ts'
import { $openChart } from '../tune/open-chart.ts'
import { musicTick } from './playing.ts'

/** The note that was played last, over the chord that sounded, in concert pitch. */
export const $playedNow = atom<PlayedNow | null>(null)

/** Shows a note as it comes in, over the chord that sounds; at rest over the chord in view. */
export const showPlayed = ({ kind, pitch }: NoteIn): void => {
  const before = $playedNow.get()
  if (kind === 'off') {
    if (before?.note.pitch === pitch) $playedNow.set({ ...before, ended: true })
    return
  }
  const [address, kept, openChart] = [$address.get(), $kept.get(), $openChart.get()]
  const tune = address && kept && concertTune(address, kept)
  if (!tune || !openChart || tune.timeline.length === 0) return
  const { soundings, length } = tune.timeline
  const here = soundings.find(({ spot: { spot } }) => spot.bar === address.bar && sameBeat(beatOf(spot), address.beat))
  const at = (musicTick() ?? here?.from ?? 0) % length
  const line = [{ at: ticks(Math.max(0, Math.floor(at))), for: ticks(1), pitch: midi(pitch) }]
  const [note] = heardLine(line, tune.timeline, openChart.settings.weights)
  if (note) $playedNow.set({ note, ended: false })
}
