// What the microphone's ear finds of lines by sampled instruments and by our own voice, with no browser between.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { soundLooker, windowFor } from '../../src/input/looking.ts'
import { type Heard, noteTracker, USUAL_LISTENING } from '../../src/input/tracking.ts'
import { BANK, compared, INSTRUMENTS, inMs, lineOf, RATE, SCENES, type Struck, sampledWav } from './played.ts'

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
