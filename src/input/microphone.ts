import { clockReader } from '../core/index.ts'
import { windowFor } from './looking.ts'
import earUrl from './microphone.worklet.ts?worker&url'
import type { Listener, Opened } from './notes.ts'
import { type Frame, type Listening, midiOf, noteTracker } from './tracking.ts'

const WHY: Readonly<Record<string, string>> = {
  NotAllowedError: 'The microphone was refused: the browser asks again at the lock beside the address.',
  NotFoundError: 'There is no microphone.',
  NotReadableError: 'Another program has the microphone.',
}

/** So often the level is told. */
const TELL_MS = 60

/** Hears one voice through the microphone: its notes, how loud it is, and its sound. */
export const openMicrophone = async (how: Listening, listener: Listener): Promise<Opened> => {
  const { onNote, onLost, onLevel } = listener
  let stream: MediaStream
  try {
    const plain = { echoCancellation: false, noiseSuppression: false, autoGainControl: false }
    stream = await navigator.mediaDevices.getUserMedia({ audio: plain })
  } catch (error) {
    const name = error instanceof Error ? error.name : ''
    return { ok: false, why: WHY[name] ?? 'The microphone could not be opened.' }
  }
  const track = stream.getAudioTracks()[0]
  // A context of the browser's own: the band's is a wrapped one, which takes no worklet.
  const context = new AudioContext()
  const close = (): void => {
    for (const t of stream.getTracks()) t.stop()
    void context.close()
  }
  try {
    await context.audioWorklet.addModule(earUrl)
  } catch {
    close()
    return { ok: false, why: 'This browser cannot listen to a microphone here.' }
  }
  const source = context.createMediaStreamSource(stream)
  const ear = new AudioWorkletNode(context, 'ear', {
    numberOfOutputs: 0,
    processorOptions: { window: windowFor(how.lowest) },
  })
  const tracker = noteTracker(how)
  const ahead = clockReader()
  let toldAt = 0
  const pageTime = (ms: number): number => ms - ahead(performance.now(), context.currentTime * 1000)
  ear.port.onmessage = ({ data }: MessageEvent<Frame>): void => {
    if (data.at >= toldAt + TELL_MS) {
      toldAt = data.at
      pageTime(0)
      const heard = data.clarity > 0.9 && data.level > how.gate ? Math.round(midiOf(data.hz, how.tuning)) : null
      onLevel?.(data.level, heard)
    }
    for (const note of tracker.hear(data)) onNote({ ...note, at: pageTime(note.at) })
  }
  source.connect(ear)
  track?.addEventListener('ended', () => onLost('The microphone was unplugged.'))
  const stop = (): void => {
    for (const note of tracker.end(context.currentTime * 1000)) onNote({ ...note, at: pageTime(note.at) })
    ear.port.onmessage = null
    ear.disconnect()
    source.disconnect()
    close()
  }
  return { ok: true, instrument: { name: track?.label || 'microphone', stream, stop } }
}
