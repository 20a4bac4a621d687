/** A note that comes in: a MIDI number in concert pitch, loudness 0..1, and when, in ms of the page's clock. */
export interface NoteIn {
  readonly kind: 'on' | 'off'
  readonly pitch: number
  readonly velocity: number
  readonly at: number
}

/** What is told while an instrument is listened to. */
export interface Listener {
  readonly onNote: (note: NoteIn) => void
  /** It was unplugged or refused in the middle; in words. */
  readonly onLost: (why: string) => void
  /** How loud it is, 0..1, and what is heard: of a microphone. */
  readonly onLevel?: (level: number, heard: number | null) => void
}

/** An instrument that is listened to: its name, its sound where it has one, and what ends the listening. */
export interface Instrument {
  readonly name: string
  readonly stream: MediaStream | null
  readonly stop: () => void
}

export type Opened =
  | { readonly ok: true; readonly instrument: Instrument }
  | { readonly ok: false; readonly why: string }
