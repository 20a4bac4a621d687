import { soundLooker } from './looking.ts'

/** What the browser gives a worklet. */
declare const sampleRate: number
declare const currentTime: number
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}
declare const registerProcessor: (name: string, processor: unknown) => void

/** Looks at what the microphone brings and tells each look; times in ms of the context's clock. */
class Ear extends AudioWorkletProcessor {
  private readonly listen: (piece: Float32Array) => void
  private from: number | null = null
  constructor({ processorOptions }: { readonly processorOptions: { readonly window: number } }) {
    super()
    this.listen = soundLooker(sampleRate, processorOptions.window, (frame) =>
      this.port.postMessage({ ...frame, at: frame.at + (this.from ?? 0) }),
    )
  }
  process([input]: readonly (readonly Float32Array[])[]): boolean {
    const first = input?.[0]
    this.from ??= currentTime * 1000
    if (first) this.listen(first)
    return true
  }
}

registerProcessor('ear', Ear)
