// Lines through a sampled synthesiser, and how much of them was heard.
import { execFileSync } from 'node:child_process'
import { existsSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { readChart } from '../../src/core/index.ts'
import { midiFile } from '../../src/formats/write-midi.ts'
import { seeded } from './seeded.ts'

/** A note as it was played: ms and MIDI number. */
export interface Struck {
  readonly at: number
  readonly for: number
  readonly pitch: number
}

export const RATE = 48_000
const ONSET_MS = 50

export const BANK = ['/usr/share/sounds/sf2/TimGM6mb.sf2', '/usr/share/sounds/sf2/default-GM.sf2'].find(existsSync)

/** General MIDI programs, with the notes they are played between and what the microphone is told of them. */
export const INSTRUMENTS = [
  { name: 'piano', program: 0, low: 48, high: 84 },
  { name: 'saxophone', program: 66, low: 46, high: 76 },
  { name: 'guitar', program: 26, low: 43, high: 79 },
  { name: 'upright bass', program: 32, low: 30, high: 55 },
] as const

export const SCENES = [
  { name: 'separated, slow', tempo: 80, step: 960, held: 0.55 },
  { name: 'eighths, slow', tempo: 100, step: 480, held: 0.92 },
  { name: 'eighths, 200', tempo: 200, step: 480, held: 0.9 },
] as const

const COUNT = 64

export const lineOf = (
  scene: (typeof SCENES)[number],
  { low, high }: { readonly low: number; readonly high: number },
  seed: number,
) => {
  const rng = seeded(seed)
  let pitch = Math.round((low + high) / 2)
  return Array.from({ length: COUNT }, (_, i) => {
    const by = [-4, -3, -2, -1, 1, 2, 3, 4, 5, -5, 7, -7][Math.floor(rng() * 12)] as number
    pitch = pitch + by > high || pitch + by < low ? pitch - by : pitch + by
    return { at: 960 + i * scene.step, for: Math.round(scene.step * scene.held), pitch }
  })
}

export const inMs = (notes: readonly Struck[], tempo: number): readonly Struck[] => {
  const ms = 60_000 / tempo / 960
  return notes.map((n) => ({ at: n.at * ms, for: n.for * ms, pitch: n.pitch }))
}

/** Through the sampled synthesiser: 16 bits, mono. */
export const sampledWav = (notes: readonly Struck[], tempo: number, program: number, folder: string): string => {
  const chart = readChart('| C |')
  if (!chart.ok || !BANK) throw new Error('no bank of sounds')
  const track = { name: 'line', channel: 0, program, notes: notes.map((n) => ({ ...n, loudness: 0.8 })) }
  const [mid, wav] = [join(folder, 'line.mid'), join(folder, `line-${program}-${tempo}.wav`)]
  writeFileSync(mid, midiFile(chart.value, tempo, [track]))
  execFileSync('fluidsynth', ['-ni', '-g', '0.7', '-R', '0', '-C', '0', '-r', String(RATE), '-F', wav, BANK, mid], {
    stdio: 'ignore',
  })
  return wav
}

/** Each struck note against the nearest heard one of its pitch, within 50 ms. */
export const compared = (
  struck: readonly Struck[],
  heard: readonly { readonly at: number; readonly pitch: number }[],
) => {
  const left = [...heard]
  let found = 0
  const off: number[] = []
  for (const n of struck) {
    const near = left
      .map((h, i) => ({ i, h, by: h.at - n.at }))
      .filter(({ h, by }) => h.pitch === n.pitch && Math.abs(by) <= ONSET_MS)
      .sort((a, b) => Math.abs(a.by) - Math.abs(b.by))[0]
    if (!near) continue
    found++
    off.push(near.by)
    left.splice(near.i, 1)
  }
  const mean = off.reduce((a, b) => a + b, 0) / Math.max(1, off.length)
  return { precision: heard.length === 0 ? 0 : found / heard.length, recall: found / struck.length, mean }
}
