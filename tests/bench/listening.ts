import { execFileSync } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { readChart } from '../../src/core/index.ts'
import { midiFile } from '../../src/formats/write-midi.ts'
import { soundLooker, windowFor } from '../../src/input/looking.ts'
import { type Heard, noteTracker, USUAL_LISTENING } from '../../src/input/tracking.ts'
import { seeded } from './seeded.ts'

/** A note as it was played: ms and MIDI number. */
interface Struck {
  readonly at: number
  readonly for: number
  readonly pitch: number
}

const RATE = 48_000
const ONSET_MS = 50

const BANK = ['/usr/share/sounds/sf2/TimGM6mb.sf2', '/usr/share/sounds/sf2/default-GM.sf2'].find(existsSync)

/** General MIDI programs, with the notes they are played between and what the microphone is told of them. */
const INSTRUMENTS = [
  { name: 'piano', program: 0, low: 48, high: 84 },
  { name: 'saxophone', program: 66, low: 46, high: 76 },
  { name: 'guitar', program: 26, low: 43, high: 79 },
  { name: 'upright bass', program: 32, low: 30, high: 55 },
] as const

const SCENES = [
  { name: 'separated, slow', tempo: 80, step: 960, held: 0.55 },
  { name: 'eighths, slow', tempo: 100, step: 480, held: 0.92 },
  { name: 'eighths, 200', tempo: 200, step: 480, held: 0.9 },
] as const

const COUNT = 64

const lineOf = (
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

const inMs = (notes: readonly Struck[], tempo: number): readonly Struck[] => {
  const ms = 60_000 / tempo / 960
  return notes.map((n) => ({ at: n.at * ms, for: n.for * ms, pitch: n.pitch }))
}

/** Through the sampled synthesiser: 16 bits, mono. */
const sampledWav = (notes: readonly Struck[], tempo: number, program: number, folder: string): string => {
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

const samplesOf = (wav: string): Float32Array => {
  const bytes = readFileSync(wav)
  const data = bytes.indexOf('data') + 8
  const channels = bytes.readUInt16LE(22)
  const count = Math.floor((bytes.length - data) / 2 / channels)
  return Float32Array.from({ length: count }, (_, i) => bytes.readInt16LE(data + i * 2 * channels) / 32_768)
}

/** Our own voice for a line: a triangle with the envelope it has in the band. */
const ownVoice = (notes: readonly Struck[]): Float32Array => {
  const last = notes.at(-1)
  const out = new Float32Array(Math.ceil((((last?.at ?? 0) + (last?.for ?? 0) + 500) / 1000) * RATE))
  for (const { at, for: length, pitch } of notes) {
    const hz = 440 * 2 ** ((pitch - 69) / 12)
    const [begin, seconds, release] = [Math.round((at / 1000) * RATE), length / 1000, 0.06]
    for (let i = 0; i < (seconds + release) * RATE && begin + i < out.length; i++) {
      const t = i / RATE
      const held = t < 0.012 ? t / 0.012 : t < 0.212 ? 1 - (0.3 * (t - 0.012)) / 0.2 : 0.7
      const level = t < seconds ? held : 0.7 * Math.max(0, 1 - (t - seconds) / release)
      out[begin + i] = (out[begin + i] ?? 0) + 0.25 * level * (2 / Math.PI) * Math.asin(Math.sin(2 * Math.PI * hz * t))
    }
  }
  return out
}

const heardIn = (samples: Float32Array, low: number, high: number): readonly Heard[] => {
  const tracker = noteTracker({ ...USUAL_LISTENING, lowest: low - 2, highest: high + 2 })
  const heard: Heard[] = []
  const listen = soundLooker(RATE, windowFor(low - 2), (frame) => heard.push(...tracker.hear(frame)))
  for (let i = 0; i < samples.length; i += 128) listen(samples.subarray(i, i + 128))
  return [...heard, ...tracker.end(samples.length / RATE)].filter((h) => h.kind === 'on')
}

/** Each struck note against the nearest heard one of its pitch, within 50 ms. */
const compared = (struck: readonly Struck[], heard: readonly { readonly at: number; readonly pitch: number }[]) => {
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

/** What the microphone's ear finds of lines played by sampled instruments and by our own voice. */
const benchListening = (tell: (line: string) => void): void => {
  const folder = mkdtempSync(join(tmpdir(), 'crossfade-listening-'))
  try {
    if (!BANK) tell('  no sampled synthesiser here (fluidsynth and a bank of sounds): only our own voice')
    for (const scene of SCENES)
      for (const { name, program, low, high } of [
        ...(BANK ? INSTRUMENTS : []),
        { name: 'our own voice', program: -1, low: 55, high: 82 },
      ]) {
        const line = lineOf(scene, { low, high }, program + 7)
        const struck = inMs(line, scene.tempo)
        const samples = program < 0 ? ownVoice(struck) : samplesOf(sampledWav(line, scene.tempo, program, folder))
        const { precision, recall, mean } = compared(struck, heardIn(samples, low, high))
        tell(
          `  ${name}, ${scene.name}: precision ${precision.toFixed(2)}, recall ${recall.toFixed(2)}, onset ${mean.toFixed(0)} ms`,
        )
      }
  } finally {
    rmSync(folder, { recursive: true })
  }
}

console.log('what the microphone’s ear finds, of 64 notes (onset within 50 ms, the right half step):')
benchListening(console.log)
