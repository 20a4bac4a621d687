import type { Page } from '@playwright/test'

/** Measures everything that reaches the loudspeakers: to be called before the page opens. */
export const listen = async (page: Page): Promise<void> => {
  await page.addInitScript(() => {
    const connect = AudioNode.prototype.connect as (to: AudioNode, ...ports: number[]) => AudioNode
    const heard = { peak: 0, quiet: 0, analyser: null as AnalyserNode | null }
    Object.assign(window, { heard })
    const meters = new Map<BaseAudioContext, readonly AudioNode[]>()
    const meterOf = (context: AudioContext): readonly AudioNode[] => {
      const analyser = context.createAnalyser()
      analyser.fftSize = 16384
      analyser.smoothingTimeConstant = 0
      heard.analyser = analyser
      const meter = context.createScriptProcessor(1024, 2, 1)
      meter.onaudioprocess = ({ inputBuffer }) => {
        let peak = 0
        for (let c = 0; c < inputBuffer.numberOfChannels; c++)
          for (const sample of inputBuffer.getChannelData(c)) peak = Math.max(peak, Math.abs(sample))
        heard.peak = Math.max(heard.peak, peak)
        heard.quiet = peak < 0.001 ? heard.quiet + inputBuffer.duration : 0
      }
      connect.call(meter, context.destination)
      return [analyser, meter]
    }
    AudioNode.prototype.connect = function (this: AudioNode, to: AudioNode, ...ports: number[]) {
      if (to instanceof AudioDestinationNode && this.context instanceof AudioContext) {
        meters.set(this.context, meters.get(this.context) ?? meterOf(this.context))
        for (const meter of meters.get(this.context) ?? []) connect.call(this, meter)
      }
      return connect.call(this, to, ...ports)
    } as typeof AudioNode.prototype.connect
  })
}

interface Heard {
  peak: number
  quiet: number
  analyser: AnalyserNode | null
}

/** The highest sample since the last call, 0..1, and starts anew. */
export const takePeak = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const { heard } = window as unknown as { heard: Heard }
    const { peak } = heard
    heard.peak = 0
    return peak
  })

/** For how many seconds nothing has been heard, by the clock of the sound itself. */
export const quietFor = (page: Page): Promise<number> =>
  page.evaluate(() => (window as unknown as { heard: Heard }).heard.quiet)

/** How loud each of these MIDI pitches sounds now, in decibels. */
export const loudness = (page: Page, pitches: readonly number[]): Promise<number[]> =>
  page.evaluate((asked) => {
    const { analyser } = (window as unknown as { heard: Heard }).heard
    if (!analyser) return asked.map(() => Number.NEGATIVE_INFINITY)
    const bins = new Float32Array(analyser.frequencyBinCount)
    analyser.getFloatFrequencyData(bins)
    const perBin = analyser.context.sampleRate / analyser.fftSize
    return asked.map((pitch) => {
      const at = Math.round((440 * 2 ** ((pitch - 69) / 12)) / perBin)
      return Math.max(...bins.slice(at - 1, at + 2))
    })
  }, pitches)
