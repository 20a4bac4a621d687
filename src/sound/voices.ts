import {
  connect,
  Filter,
  Gain,
  getContext,
  getDestination,
  MembraneSynth,
  MonoSynth,
  NoiseSynth,
  Synth,
  WaveShaper,
} from 'tone'
import { CHANNELS, type Channel, loudnessOf, type Mix, type ScorePart } from './score.ts'
import { oneAfterAnother } from './strikes.ts'
import { hertz, voicePool } from './voice-pool.ts'

/** The level starts low: practice is long and ears do not grow back. */
const LEVEL = 0.3
/** Up to here loudness passes as it is; above, it is bent so that it never reaches full scale. A compressor would come 6 ms late. */
const KNEE = 0.4
const bent = (x: number): number => {
  const over = Math.abs(x) - KNEE
  return over <= 0 ? x : Math.sign(x) * (KNEE + (1 - KNEE) * 0.6 * Math.tanh(over / (1 - KNEE)))
}
const COUNT_LEVEL = 0.35
/** Two chords of six, one dying away under the other. */
const CHORD_VOICES = 12
/** The stick on the cymbal, Hz. */
const PING = 5450

const clickHertz = (isFirst: boolean): number => (isFirst ? 1760 : 1320)

/** Instruments of the band, in the audio context that is current when they are made. */
export interface Voices {
  /** One note: seconds of the context's clock. */
  readonly strike: (part: ScorePart, pitch: number, at: number, seconds: number, loudness: number) => void
  /** One click of a count-in, which is heard whatever the mix is. */
  readonly count: (at: number, first: boolean) => void
  readonly mix: (mix: Mix) => void
  readonly silence: () => void
}

type Strike = (pitch: number, at: number, seconds: number, loudness: number) => void

const noise = (
  to: Gain,
  colour: 'white' | 'pink',
  decay: number,
  type: BiquadFilterType,
  frequency: number,
): Strike => {
  const synth = new NoiseSynth({
    noise: { type: colour },
    envelope: { attack: 0.001, decay, sustain: 0, release: 0.02 },
  })
  synth.chain(new Filter({ type, frequency, Q: type === 'bandpass' ? 4 : 0.7 }), to)
  return (_pitch, at, seconds, loudness) => synth.triggerAttackRelease(Math.max(seconds, decay), at, loudness)
}

/** All of it is synthesised: no samples, nothing fetched. */
export const makeVoices = (): Voices => {
  const out = new Gain(LEVEL)
  out.chain(new WaveShaper(bent, 4096), getDestination())
  const gains = Object.fromEntries(CHANNELS.map((c) => [c, new Gain(0.5).connect(out)])) as Record<Channel, Gain>
  const quiet = (channel: Channel, gain: number): Gain => new Gain(gain).connect(gains[channel])

  const line = new Synth({
    oscillator: { type: 'triangle' },
    envelope: { attack: 0.012, decay: 0.2, sustain: 0.7, release: 0.06 },
  }).connect(quiet('line', 0.9))
  const bass = new MonoSynth({
    oscillator: { type: 'triangle' },
    filter: { type: 'lowpass', Q: 1 },
    filterEnvelope: { attack: 0.005, decay: 0.25, sustain: 0.4, release: 0.2, baseFrequency: 160, octaves: 2.4 },
    envelope: { attack: 0.008, decay: 0.5, sustain: 0.45, release: 0.08 },
  }).connect(quiet('bass', 1))
  const chords = voicePool(
    CHORD_VOICES,
    {
      oscillator: { type: 'custom', partials: [1, 0.3, 0.12, 0.05] },
      envelope: { attack: 0.006, decay: 0.9, sustain: 0.25, release: 0.2 },
    },
    quiet('chords', 0.48),
  )
  const ping = new Synth({
    oscillator: { type: 'square' },
    envelope: { attack: 0.001, decay: 0.35, sustain: 0, release: 0.1 },
  }).connect(quiet('drums', 0.08))
  const wash = noise(quiet('drums', 0.42), 'white', 0.4, 'highpass', 6500)
  const drum = new MembraneSynth({
    pitchDecay: 0.03,
    octaves: 3,
    envelope: { attack: 0.001, decay: 0.25, sustain: 0, release: 0.1 },
  }).connect(quiet('drums', 0.5))
  const click = new Synth({
    oscillator: { type: 'sine' },
    envelope: { attack: 0.001, decay: 0.04, sustain: 0, release: 0.02 },
  }).connect(quiet('click', 0.8))
  const counting = new Gain(0).connect(out)
  let counted: readonly OscillatorNode[] = []
  const countClick = (at: number, isFirst: boolean): OscillatorNode => {
    const context = getContext()
    const [tone, level] = [context.createOscillator(), context.createGain()]
    tone.frequency.value = clickHertz(isFirst)
    level.gain.setValueAtTime(0, at)
    level.gain.linearRampToValueAtTime(isFirst ? 0.85 : 0.55, at + 0.001)
    level.gain.exponentialRampToValueAtTime(0.001, at + 0.045)
    connect(tone, level)
    connect(level, counting)
    tone.start(at)
    tone.stop(at + 0.06)
    return tone
  }

  const strikes: Readonly<Record<ScorePart, Strike>> = {
    line: (pitch, at, seconds, loudness) => line.triggerAttackRelease(hertz(pitch), seconds, at, loudness),
    bass: (pitch, at, seconds, loudness) => bass.triggerAttackRelease(hertz(pitch), seconds, at, loudness),
    chords: chords.strike,
    ride: (pitch, at, seconds, loudness) => {
      ping.triggerAttackRelease(PING, 0.3, at, loudness)
      wash(pitch, at, seconds, loudness * 0.6)
    },
    hat: noise(quiet('drums', 0.35), 'white', 0.05, 'highpass', 7500),
    drum: (_pitch, at, _seconds, loudness) => drum.triggerAttackRelease(55, 0.1, at, loudness),
    rim: noise(quiet('drums', 0.8), 'pink', 0.03, 'bandpass', 1900),
    click: (_pitch, at, _seconds, loudness) =>
      click.triggerAttackRelease(clickHertz(loudness > 0.7), 0.03, at, loudness),
  }
  const context = getContext()
  // A file is written at its own pace: nothing in it is late.
  const inOrder = oneAfterAnother(context.isOffline ? undefined : () => context.currentTime)
  return {
    strike: (part, pitch, at, seconds, loudness) => strikes[part](pitch, inOrder(part, at), seconds, loudness),
    count: (at, first) => {
      counting.gain.cancelScheduledValues(0)
      counting.gain.value = COUNT_LEVEL
      // What an earlier count still has to click goes with it.
      if (first) for (const tone of counted) tone.stop()
      counted = [...(first ? [] : counted), countClick(at, first)]
    },
    mix: (mix) => {
      for (const c of CHANNELS) gains[c].gain.rampTo(loudnessOf(mix, c), 0.02)
    },
    silence: () => {
      counting.gain.rampTo(0, 0.02)
      line.triggerRelease()
      bass.triggerRelease()
      chords.silence()
    },
  }
}

let made: Voices | undefined
/** The band of the context that sounds, made at its first note. */
export const band = (): Voices => {
  made ??= makeVoices()
  return made
}
export const bandIfMade = (): Voices | undefined => made
