import { useStore } from '@nanostores/react'
import { type Reading, transposeChord } from '../../../core/index.ts'
import type { PlayedNow } from '../../figures/PlayedTab.tsx'
import { FIRST } from '../../state/page/first.ts'
import { $playedNow } from '../../state/sound/now-played.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'

/** The note that was played last, where the chord it was played over is the one that is read. */
export const usePlayed = (reading: Reading, { instrument }: OpenChart): PlayedNow | null => {
  const played = useStore($playedNow, FIRST)
  const over = played?.note.sounding?.place?.chord
  return over && transposeChord(over, instrument.written).symbol === reading.place.chord.symbol ? played : null
}
