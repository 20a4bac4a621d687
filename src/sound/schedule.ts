import { type getTransport, Part } from 'tone'
import { TICKS_PER_QUARTER } from '../core/index.ts'
import type { Score, ScoreNote } from './score.ts'
import type { Voices } from './voices.ts'

type Transport = ReturnType<typeof getTransport>

/** Tone's transport counts in our ticks, and its tempo is in quarters. */
export const setTempo = (transport: Transport, { beat, tempo }: Pick<Score, 'beat' | 'tempo'>): void => {
  transport.bpm.value = (tempo * beat) / TICKS_PER_QUARTER
}

type Timed = ScoreNote & { readonly time: string }

/** Puts a score on a transport, at its place in the chart and round and round: the one way both for playing and for a file. */
export const schedule = (transport: Transport, score: Score, voices: Voices): Part<Timed> => {
  transport.PPQ = TICKS_PER_QUARTER
  setTempo(transport, score)
  const notes = score.notes.map((n): Timed => ({ ...n, time: `${Math.round(n.at)}i` }))
  const part = new Part<Timed>((at, n) => {
    const tick = 60 / (transport.bpm.value * TICKS_PER_QUARTER)
    voices.strike(n.part, n.pitch, at, n.for * tick, n.loudness)
  }, notes)
  part.start(0)
  transport.loop = true
  transport.setLoopPoints(`${Math.round(score.span.from)}i`, `${Math.round(score.span.to)}i`)
  return part
}
