import { GrainPlayer, getDestination, ToneAudioBuffer } from 'tone'

const LEVEL_DB = -6

/** Plays a stretch of a take's sound, slower without going lower; `start` begins it anew at a moment of the context's clock. */
export const soundPlayer = (buffer: AudioBuffer, rate: number) => {
  const player = new GrainPlayer({ url: new ToneAudioBuffer(buffer), grainSize: 0.12, overlap: 0.05 })
  player.playbackRate = rate
  player.volume.value = LEVEL_DB
  player.connect(getDestination())
  return {
    start: (at: number): void => {
      player.stop(at)
      player.start(at + 0.001)
    },
    stop: (): void => {
      player.stop()
      player.dispose()
    },
  }
}
