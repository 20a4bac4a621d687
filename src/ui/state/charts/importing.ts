import { atom } from 'nanostores'
import { type Answer, answered } from '../kept/request.ts'
import { say } from '../page/notices.ts'
import { addChart } from './library.ts'

/** What a file holds, read but not kept. */
export interface ReadChart {
  readonly format: 'text' | 'musicxml' | 'abc' | 'midi'
  readonly title: string
  readonly text: string
  readonly read: {
    readonly bars: number
    readonly chords: number
    readonly key: string | null
    readonly metre: string
    readonly tempo: number
    readonly pickup: number
    readonly sections: readonly string[]
  }
  readonly leftOut: readonly { readonly what: string; readonly why: string }[]
  /** The tunes there are to choose from, and which this is. */
  readonly tunes?: readonly { readonly title: string; readonly chords: number }[]
  readonly chosen?: number
}

export interface Importing {
  readonly file: File
  /** Null while it is being read. */
  readonly answer: Answer<ReadChart> | null
}

export const $importing = atom<Importing | null>(null)

/** Reads a file, or one tune of it, and shows what is in it; nothing is kept yet. */
export const readIn = async (file: File, tune: number | null = null): Promise<void> => {
  $importing.set({ file, answer: null })
  const form = new FormData()
  form.set('file', file)
  const query = tune === null ? '' : `?tune=${tune}`
  const answer = await answered<ReadChart>(() => fetch(`/api/v1/import${query}`, { method: 'POST', body: form }))
  if ($importing.get()?.file === file) $importing.set({ file, answer })
}

export const keepImported = async (): Promise<void> => {
  const answer = $importing.get()?.answer
  if (!answer?.ok) return
  $importing.set(null)
  if (await addChart(answer.value.title, answer.value.text)) say('Kept.', 'undo')
}
export const dropImported = (): void => $importing.set(null)
