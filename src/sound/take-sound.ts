import { AudioBufferSink, BlobSource, Input, WEBM } from 'mediabunny'
import { getContext } from 'tone'

/** Longer pieces are heard from the notes alone, ms. */
const LONGEST_MS = 15 * 60_000

/** A stretch of a kept sound as one buffer, decoded piece by piece so that an hour is never held whole. From and to in seconds. */
const decoded = async (url: string, from: number, to: number): Promise<AudioBuffer | null> => {
  const answer = await fetch(url)
  if (!answer.ok) return null
  const input = new Input({ formats: [WEBM], source: new BlobSource(await answer.blob()) })
  const track = await input.getPrimaryAudioTrack()
  if (!track) return null
  const context = getContext().rawContext
  const rate = await track.getSampleRate()
  const channels = await track.getNumberOfChannels()
  const whole = context.createBuffer(channels, Math.max(1, Math.ceil((to - from) * rate)), rate)
  for await (const { buffer, timestamp } of new AudioBufferSink(track).buffers(Math.max(0, from), to))
    for (let c = 0; c < channels; c++) {
      const at = Math.round((timestamp - from) * rate)
      const piece = buffer.getChannelData(c)
      const begin = Math.max(0, -at)
      if (begin < piece.length && at + begin < whole.length)
        whole.copyToChannel(piece.subarray(begin, begin + whole.length - at - begin), c, at + begin)
    }
  return whole
}

/** A stretch of the sound of a take, from and to in ms of the sound; null where it is too long or cannot be read. */
export const takeSound = async (id: string, from: number, to: number): Promise<AudioBuffer | null> => {
  if (to - from > LONGEST_MS) return null
  return decoded(`/api/v1/takes/${id}/sound`, from / 1000, to / 1000).catch(() => null)
}
