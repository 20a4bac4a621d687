/** What can be taken back: a choice that lives in the address, or something that was kept, of which the server knows more. */
export type Done =
  | {
      readonly kind: 'choice'
      /** As it is told when it is taken back. */
      readonly name: string
      readonly back: () => void
      readonly forth: () => void
      /** Choices that share this word, and follow each other closely, are taken back together. */
      readonly join: string | null
      readonly at: number
    }
  | { readonly kind: 'kept'; readonly of: { readonly kind: string; readonly id: string } }

const MOST = 500
/** In milliseconds. */
const CLOSE_MS = 2000

let past: readonly Done[] = []
let future: readonly Done[] = []

/** Something was done; what was taken back before cannot be done again after it. */
export const remember = (done: Done): void => {
  const last = past.at(-1)
  future = []
  const isClose = done.kind === 'choice' && last?.kind === 'choice' && done.at - last.at < CLOSE_MS
  if (isClose && done.join !== null && done.join === last.join)
    past = [...past.slice(0, -1), { ...done, back: last.back }]
  else past = [...past, done].slice(-MOST)
}

/** Something from before this page was taken back, and can be done again. */
export const rememberTakenBack = (done: Done): void => {
  future = [...future, done]
}

/** The last thing done, which now is the next to be done again; null where this page did nothing yet. */
export const takeBack = (): Done | null => {
  const last = past.at(-1) ?? null
  past = past.slice(0, -1)
  if (last) future = [...future, last]
  return last
}

export const takeForth = (): Done | null => {
  const next = future.at(-1) ?? null
  future = future.slice(0, -1)
  if (next) past = [...past, next]
  return next
}
