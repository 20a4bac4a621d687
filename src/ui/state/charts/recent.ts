import { atom } from 'nanostores'
import { $address } from '../address/address.ts'
import { readStored, writeStored } from '../kept/browser-store.ts'

export interface Opened {
  readonly id: string
  readonly title: string
}

/** What was opened and typed last in this browser, the latest first: charts, and sketches until they are removed. */
export interface Recent {
  readonly charts: readonly Opened[]
  readonly sketches: readonly string[]
}

const STORED = 'crossfade-recent'
const MOST_CHARTS = 4
const MOST_SKETCHES = 40

export const $recent = atom<Recent>({ charts: [], sketches: [] })

const put = (recent: Recent): void => {
  $recent.set(recent)
  writeStored(STORED, recent)
}

export const rememberOpened = ({ id, title }: Opened): void => {
  const { charts, sketches } = $recent.get()
  if (charts[0]?.id === id && charts[0].title === title) return
  put({ charts: [{ id, title }, ...charts.filter((c) => c.id !== id)].slice(0, MOST_CHARTS), sketches })
}

export const forgetOpened = (id: string): void => {
  const { charts, sketches } = $recent.get()
  put({ charts: charts.filter((c) => c.id !== id), sketches })
}

const rememberSketch = (text: string): void => {
  const { charts, sketches } = $recent.get()
  if (sketches[0] !== text)
    put({ charts, sketches: [text, ...sketches.filter((s) => s !== text)].slice(0, MOST_SKETCHES) })
}

export const removeSketch = (text: string): void => {
  const { charts, sketches } = $recent.get()
  put({ charts, sketches: sketches.filter((s) => s !== text) })
}

/** Reads what this browser holds, and from then on remembers each sketch that is shown. */
export const startRecent = (): void => {
  const stored = readStored<Partial<Recent>>(STORED)
  $recent.set({ charts: stored?.charts ?? [], sketches: stored?.sketches ?? [] })
  const shown = (sketch: string | null | undefined): void => {
    if (sketch) rememberSketch(sketch)
  }
  shown($address.get()?.sketch)
  $address.listen((address) => shown(address?.sketch))
}
