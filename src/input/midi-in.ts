import { type ControlChangeMessageEvent, type Input, type NoteMessageEvent, WebMidi } from 'webmidi'
import type { Listener, NoteIn, Opened } from './notes.ts'

const enabled = async (): Promise<boolean> => {
  try {
    await WebMidi.enable()
    return true
  } catch {
    return false
  }
}

/** The instruments that are connected now; null where the browser gives no MIDI. */
export const midiNames = async (): Promise<readonly string[] | null> =>
  (await enabled()) ? WebMidi.inputs.map((i) => i.name) : null

/** Tells whenever an instrument is plugged in or out. Gives what ends the telling. */
export const onMidiChange = (changed: () => void): (() => void) => {
  WebMidi.addListener('connected', changed)
  WebMidi.addListener('disconnected', changed)
  return () => {
    WebMidi.removeListener('connected', changed)
    WebMidi.removeListener('disconnected', changed)
  }
}

/** Which instrument and channel is heard; null is any. */
export interface MidiChoice {
  readonly device: string | null
  readonly channel: number | null
}

const noteIn = (e: NoteMessageEvent, kind: NoteIn['kind']): NoteIn => ({
  ...{ kind, pitch: e.note.number, velocity: e.note.attack },
  // Stand-ins and some drivers give no time of their own.
  at: e.timestamp > 0 ? e.timestamp : performance.now(),
})

/** Hears notes as they begin and end, of one instrument or of all, also of those plugged in later. */
export const openMidi = async ({ device, channel }: MidiChoice, { onNote, onLost }: Listener): Promise<Opened> => {
  if (!(await enabled())) return { ok: false, why: 'This browser gives no MIDI, or it was refused.' }
  const isMeant = (input: Input): boolean => device === null || input.name === device
  const meant = (): readonly Input[] => WebMidi.inputs.filter(isMeant)
  if (meant().length === 0)
    return { ok: false, why: device === null ? 'No MIDI instrument is connected.' : `${device} is not connected.` }
  const isHeard = (e: { readonly message: { readonly channel: number } }): boolean =>
    channel === null || e.message.channel === channel
  const on = (e: NoteMessageEvent): void => {
    if (isHeard(e)) onNote(noteIn(e, 'on'))
  }
  const off = (e: NoteMessageEvent): void => {
    if (isHeard(e)) onNote(noteIn(e, 'off'))
  }
  let heard: readonly Input[] = []
  const forget = (): void => {
    for (const input of heard) {
      input.removeListener('noteon', on)
      input.removeListener('noteoff', off)
    }
  }
  const listen = (): void => {
    forget()
    const before = heard
    heard = meant()
    for (const input of heard) {
      input.addListener('noteon', on)
      input.addListener('noteoff', off)
    }
    const lost = before.filter((input) => !heard.includes(input))
    if (lost.length > 0) onLost(`${lost.map((i) => i.name).join(', ')} was unplugged.`)
  }
  listen()
  const stopTelling = onMidiChange(listen)
  const stop = (): void => {
    stopTelling()
    forget()
  }
  return {
    ok: true,
    instrument: {
      name: meant()
        .map((i) => i.name)
        .join(', '),
      stream: null,
      stop,
    },
  }
}

/** A switch pedal of an instrument: told its controller as it goes down. Gives what ends the listening. */
export const listenToPedal = async (onPress: (controller: number, at: number) => void): Promise<() => void> => {
  if (!(await enabled())) return () => undefined
  const DOWN = 64
  const pressed = (e: ControlChangeMessageEvent): void => {
    if (Number(e.rawValue) >= DOWN) onPress(e.controller.number, performance.now())
  }
  let heard: readonly Input[] = []
  const listen = (): void => {
    for (const input of heard) input.removeListener('controlchange', pressed)
    heard = [...WebMidi.inputs]
    for (const input of heard) input.addListener('controlchange', pressed)
  }
  listen()
  const stopTelling = onMidiChange(listen)
  return () => {
    stopTelling()
    for (const input of heard) input.removeListener('controlchange', pressed)
  }
}
