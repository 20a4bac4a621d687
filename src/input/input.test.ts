import { describe, expect, it } from 'vitest'
import { seeded } from '../../tests/bench/seeded.ts'
import { delayOf } from './calibrate.ts'
import { soundLooker, windowFor } from './looking.ts'
import { type Heard, noteTracker, USUAL_LISTENING } from './tracking.ts'

const RATE = 48_000

/** Tones one after another: ms, MIDI numbers, loudness. */
const toned = (notes: readonly (readonly [at: number, length: number, pitch: number, loud?: number])[]) => {
  const last = Math.max(...notes.map(([at, length]) => at + length))
  const out = new Float32Array(Math.ceil(((last + 300) / 1000) * RATE))
  for (const [at, length, pitch, loud = 0.3] of notes) {
    const hz = 440 * 2 ** ((pitch - 69) / 12)
    const [from, count] = [Math.round((at / 1000) * RATE), Math.round((length / 1000) * RATE)]
    for (let i = 0; i < count; i++) {
      const t = i / RATE
      const level = Math.min(1, t / 0.008, (length / 1000 - t) / 0.02) * Math.exp(-t * 1.5)
      out[from + i] =
        (out[from + i] ?? 0) + loud * level * (Math.sin(2 * Math.PI * hz * t) + 0.4 * Math.sin(4 * Math.PI * hz * t))
    }
  }
  return out
}

const heardIn = (samples: Float32Array, how: Partial<typeof USUAL_LISTENING> = {}) => {
  const listening = { ...USUAL_LISTENING, lowest: 46, ...how }
  const tracker = noteTracker(listening)
  const heard: Heard[] = []
  const listen = soundLooker(RATE, windowFor(listening.lowest), (frame) => heard.push(...tracker.hear(frame)))
  for (let i = 0; i < samples.length; i += 128) listen(samples.subarray(i, i + 128))
  return [...heard, ...tracker.end((samples.length / RATE) * 1000)]
}
const pitches = (heard: readonly Heard[]) => heard.flatMap((h) => (h.kind === 'on' ? [h.pitch] : []))

describe('notes in sound', () => {
  it('are found with their onsets and ends, each once', () => {
    const notes = [60, 64, 67, 72, 71, 55].map((p, i) => [200 + i * 400, 300, p] as const)
    const heard = heardIn(toned(notes))
    expect(pitches(heard)).toEqual([60, 64, 67, 72, 71, 55])
    for (const [i, h] of heard.filter((x) => x.kind === 'on').entries())
      expect(Math.abs(h.at - (notes[i]?.[0] ?? 0))).toBeLessThan(25)
    for (const [i, h] of heard.filter((x) => x.kind === 'off').entries())
      expect(Math.abs(h.at - ((notes[i]?.[0] ?? 0) + 300))).toBeLessThan(60)
  })

  it('of eighths at 200 are found without gaps between them', () => {
    const line = [60, 62, 64, 65, 67, 65, 64, 62, 60, 59, 57, 55]
    expect(pitches(heardIn(toned(line.map((p, i) => [200 + i * 150, 140, p]))))).toEqual(line)
  })

  it('stay one where a busy machine hands on silence in the middle of them', () => {
    const notes = [48, 60, 62, 69, 74, 81]
    for (const hole of [3, 10, 21, 40, 90])
      for (const [k, pitch] of notes.entries()) {
        const sound = toned([[200, 500, pitch]])
        sound.fill(k % 2 ? 0 : 1e-6, ((380 + k * 7) / 1000) * RATE, ((380 + k * 7 + hole) / 1000) * RATE)
        const heard = heardIn(sound)
        expect(pitches(heard), `${hole} ms in ${pitch}`).toEqual([pitch])
        expect(Math.abs((heard.at(-1)?.at ?? 0) - 700), `the end of ${pitch}`).toBeLessThan(60)
      }
  })

  it('that are cut off end where they were cut', () => {
    const sound = toned([[200, 500, 62]])
    sound.fill(0, 0.45 * RATE)
    expect(Math.abs((heardIn(sound).at(-1)?.at ?? 0) - 450)).toBeLessThan(60)
  })

  it('that are struck again are two', () => {
    expect(
      pitches(
        heardIn(
          toned([
            [200, 280, 62],
            [500, 300, 62],
            [820, 300, 62],
          ]),
        ),
      ),
    ).toEqual([62, 62, 62])
  })

  it('below the gate, out of the instrument’s range and in noise are none', () => {
    expect(pitches(heardIn(toned([[200, 400, 60, 0.003]])))).toEqual([])
    expect(pitches(heardIn(toned([[200, 400, 60]]), { lowest: 65 }))).toEqual([])
    const rng = seeded(3)
    expect(pitches(heardIn(Float32Array.from({ length: RATE }, () => (rng() - 0.5) * 0.2)))).toEqual([])
  })

  it('follow the tuning: a horn a quarter tone sharp is still in its notes', () => {
    const sharp = toned([
      [200, 400, 60.45],
      [700, 400, 64.45],
    ])
    expect(pitches(heardIn(sharp, { tuning: 440 * 2 ** (0.45 / 12) }))).toEqual([60, 64])
  })
})

describe('calibration', () => {
  const clicks = Array.from({ length: 8 }, (_, i) => 1000 + i * 600)

  it.each([0, 12, 47, 90, 180, 260, -35])('finds a delay of %i ms within 5', (delay) => {
    for (const seed of [1, 2, 3, 4]) {
      const rng = seeded(seed)
      const taps = clicks.map((c) => c + delay + (rng() - 0.5) * 10)
      expect(Math.abs((delayOf(clicks, taps)?.delay ?? Number.NaN) - delay)).toBeLessThanOrEqual(5)
    }
  })

  it('is not led astray by a missed click or by a tap beside it', () => {
    const taps = clicks.map((c) => c + 80)
    expect(delayOf(clicks, [...taps.slice(2), 1290, 5300])?.delay).toBeCloseTo(80, 0)
  })

  it('says nothing of too few taps', () => {
    expect(delayOf(clicks, [1080, 1680, 2280])).toBeNull()
  })
})
