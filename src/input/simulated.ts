import type { Listener, Opened } from './notes.ts'

/** A note of the simulated player: when it begins, in ms from the first beat, and how many ms it lasts. */
export interface SimulatedNote {
  readonly at: number
  readonly for: number
  readonly pitch: number
  readonly velocity: number
}

/** So often it looks what is due, and so far ahead it sounds. */
const EVERY_MS = 20
const AHEAD_MS = 120

/**
 * Plays notes that were worked out before as if somebody played them now, with the band, whose clock is not the page's:
 * `firstBeat` is asked anew each time. `sound` is told each note a little ahead, and when, in ms of the page's clock.
 */
export const openSimulated = (
  notes: readonly SimulatedNote[],
  firstBeat: () => number,
  sound: (note: SimulatedNote, at: number) => void,
  stream: MediaStream | null,
  { onNote }: Listener,
): Opened => {
  let [sounded, begun] = [0, 0]
  let ending: readonly SimulatedNote[] = []
  const look = (): void => {
    const begin = firstBeat()
    const now = performance.now() - begin
    for (let n = notes[sounded]; n && n.at <= now + AHEAD_MS; n = notes[++sounded]) sound(n, begin + n.at)
    for (let n = notes[begun]; n && n.at <= now; n = notes[++begun]) {
      onNote({ kind: 'on', pitch: n.pitch, velocity: n.velocity, at: begin + n.at })
      ending = [...ending, n]
    }
    const over = ending.filter((n) => n.at + n.for <= now)
    ending = ending.filter((n) => n.at + n.for > now)
    for (const n of over) onNote({ kind: 'off', pitch: n.pitch, velocity: 0, at: begin + n.at + n.for })
  }
  const timer = setInterval(look, EVERY_MS)
  return { ok: true, instrument: { name: 'simulated player', stream, stop: () => clearInterval(timer) } }
}
