import type { PlayedNote } from '../../../core/index.ts'
import { dropStored, readStored, writeStored } from '../kept/browser-store.ts'
import { answered, request } from '../kept/request.ts'

/** What of a take the server does not have yet is held here too, as long as it does not answer. */
const STORED = 'crossfade-take'
interface Held {
  readonly id: string
  readonly notes: readonly PlayedNote[]
}

/** Of so many empty parts one is sent. */
const RESTS = 3

/** Sends a take as it grows: its notes in numbered parts, its sound byte after byte. Nothing is let go before it is kept. */
export const partSender = (id: string, onState: (isKept: boolean) => void) => {
  let [notes, sound]: [readonly { readonly n: number; readonly notes: readonly PlayedNote[] }[], readonly Blob[]] = [
    [],
    [],
  ]
  let [next, bytes] = [0, 0]
  let all: readonly PlayedNote[] = []
  let rests = 0
  let turn: Promise<void> = Promise.resolve()

  const sendNotes = async (): Promise<boolean> => {
    for (let part = notes[0]; part; part = notes[0]) {
      const answer = await request('POST', `takes/${id}/parts`, part)
      if (!answer.ok && answer.passing) return false
      notes = notes.slice(1)
    }
    return true
  }
  const sendSound = async (): Promise<boolean> => {
    for (let piece = sound[0]; piece; piece = sound[0]) {
      const body = piece
      const answer = await answered<{ bytes: number }>(() =>
        fetch(`/api/v1/takes/${id}/sound?from=${bytes}`, {
          method: 'PUT',
          headers: { 'content-type': 'audio/webm' },
          body,
        }),
      )
      if (!answer.ok && answer.passing) return false
      // A piece that had come, though its answer was lost, is there already.
      const there = answer.ok
        ? answer.value.bytes
        : ((answer.current as { bytes?: number } | undefined)?.bytes ?? bytes)
      if (!answer.ok && there !== bytes + piece.size) return tooMuch()
      bytes = there
      sound = sound.slice(1)
    }
    return true
  }
  /** The sound is as long as it may be: what comes after it is let go, the notes go on. */
  let isFull = false
  const tooMuch = (): boolean => {
    isFull = true
    sound = []
    return true
  }
  const send = (): Promise<void> => {
    turn = turn.then(async () => {
      const isKept = (await sendNotes()) && (await sendSound())
      if (isKept) dropStored(STORED)
      else writeStored(STORED, { id, notes: all } satisfies Held)
      onState(isKept)
    })
    return turn
  }
  return {
    /** What was played since the last part; a player who rests is told of now and then, or the take would count as cut off. */
    addNotes: (part: readonly PlayedNote[]): void => {
      rests = part.length === 0 ? rests + 1 : 0
      if (part.length === 0 && rests % RESTS !== 0) return
      all = [...all, ...part]
      notes = [...notes, { n: next++, notes: part }]
      void send()
    },
    addSound: (piece: Blob): void => {
      if (piece.size === 0 || isFull) return
      sound = [...sound, piece]
      void send()
    },
    finished: send,
    hasSound: () => bytes > 0 || sound.length > 0,
  }
}

/** What an earlier visit held of a take that the server did not get. */
export const heldTake = (): Held | null => readStored<Held>(STORED)
export const dropHeldTake = (): void => dropStored(STORED)
