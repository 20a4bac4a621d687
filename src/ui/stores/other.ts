import { atom } from 'nanostores'
import { type Answer, type ChartRow, request } from './rows.ts'

/** The chart that is laid over the open one; null while it is being fetched or where none is chosen. */
export const $other = atom<{ readonly id: string; readonly answer: Answer<ChartRow> } | null>(null)

export const fetchOther = async (id: string): Promise<void> => {
  if ($other.get()?.id !== id) $other.set(null)
  $other.set({ id, answer: await request<ChartRow>('GET', `charts/${encodeURIComponent(id)}`) })
}
