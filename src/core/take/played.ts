import type { Timeline } from '../time/timeline.ts'

/** A note as it was played: ticks from the start of the chart on no grid, early ones below 0; `velocity` 0..1. */
export interface PlayedNote {
  readonly at: number
  readonly for: number
  readonly pitch: number
  readonly velocity?: number | undefined
}

/** `tempo` in beats of the metre a minute. */
export const msPerTick = ({ beat }: Timeline, tempo: number): number => 60_000 / (tempo * beat)

/** Notes struck within this many ms are struck together. */
export const TOGETHER_MS = 25

/** One voice in the order of its onsets: of notes struck together, as close as `within` ticks, the highest is heard. */
export const oneVoice = <N extends PlayedNote>(notes: readonly N[], within: number): readonly N[] => {
  const voice: N[] = []
  for (const n of [...notes].sort((a, b) => a.at - b.at)) {
    const last = voice.at(-1)
    if (!last || n.at - last.at > within) voice.push(n)
    else if (n.pitch > last.pitch) voice[voice.length - 1] = n
  }
  return voice
}
