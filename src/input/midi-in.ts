import { type NoteMessageEvent, WebMidi } from 'webmidi'

/** What came of asking for instruments: their names and what ends the listening, or why there are none. */
export type Listening =
  | { readonly ok: true; readonly names: readonly string[]; readonly stop: () => void }
  | { readonly ok: false; readonly why: 'refused' | 'none' }

/** Hears every instrument that is connected; `onNote` is told each note as it is struck, a MIDI number in concert pitch. */
export const listenToMidi = async (onNote: (pitch: number) => void): Promise<Listening> => {
  try {
    await WebMidi.enable()
  } catch {
    return { ok: false, why: 'refused' }
  }
  const { inputs } = WebMidi
  if (inputs.length === 0) return { ok: false, why: 'none' }
  const heard = (e: NoteMessageEvent): void => onNote(e.note.number)
  for (const input of inputs) input.addListener('noteon', heard)
  const stop = (): void => {
    for (const input of inputs) input.removeListener('noteon', heard)
  }
  return { ok: true, names: inputs.map((i) => i.name), stop }
}
