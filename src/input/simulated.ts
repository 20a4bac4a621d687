import type { Listener, Opened } from './notes.ts'

/** A note of the simulated player: when it begins and how long it lasts, in ms of the page's clock. */
export interface SimulatedNote {
  readonly at: number
  readonly for: number
  readonly pitch: number
  readonly velocity: number
}

/** So often it looks what is due, and so far ahead it sounds. */
const EVERY_MS = 20
const AHEAD_MS = 120

/** Plays notes that were worked out before as if somebody played them now; `sound` is told each a little ahead. */
export const openSimulated = (
  notes: readonly SimulatedNote[],
  sound: (note: SimulatedNote) => void,
  stream: MediaStream | null,
  { onNote }: Listener,
): Opened => {
  let [sounded, begun] = [0, 0]
  let ending: readonly SimulatedNote[] = []
  const look = (): void => {
    const now = performance.now()
    for (let n = notes[sounded]; n && n.at <= now + AHEAD_MS; n = notes[++sounded]) sound(n)
    for (let n = notes[begun]; n && n.at <= now; n = notes[++begun]) {
      onNote({ kind: 'on', pitch: n.pitch, velocity: n.velocity, at: n.at })
      ending = [...ending, n]
    }
    const over = ending.filter((n) => n.at + n.for <= now)
    ending = ending.filter((n) => n.at + n.for > now)
    for (const n of over) onNote({ kind: 'off', pitch: n.pitch, velocity: 0, at: n.at + n.for })
  }
  const timer = setInterval(look, EVERY_MS)
  return { ok: true, instrument: { name: 'simulated player', stream, stop: () => clearInterval(timer) } }
}
