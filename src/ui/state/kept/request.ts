import { atom } from 'nanostores'

/** What the server answered, or why it did not: `code` is the problem's, `unreachable` where nothing answered. */
export type Answer<T> =
  | { readonly ok: true; readonly value: T }
  | {
      readonly ok: false
      readonly code: string
      readonly detail: string
      /** Whether the same may be answered otherwise when it is asked again. */
      readonly passing: boolean
      readonly current?: unknown
    }

/** Whether this device is let in, as far as it was told. */
export const $isLetIn = atom(true)

/** What a request was answered, or that nothing answered. */
export const answered = async <T>(send: () => Promise<Response>): Promise<Answer<T>> => {
  try {
    const response = await send()
    const read = await response.json()
    if (response.ok) {
      $isLetIn.set(true)
      return { ok: true, value: read }
    }
    const { code, detail, current } = read
    // A check that took too long says nothing of what was sent: the machine was busy.
    // A telephone that is let in no longer may be let in again.
    const passing = response.status >= 500 || code === 'too_long' || code === 'not_let_in'
    if (code === 'not_let_in') $isLetIn.set(false)
    return { ok: false, code, detail, passing, current }
  } catch {
    return { ok: false, code: 'unreachable', detail: 'The program is not answering.', passing: true }
  }
}

/** After so long without an answer there is none. */
const PATIENCE_MS = 30_000

let leaving = false
/** From now on what is sent outlives the page: the tab is being closed, or may be. */
export const leavePage = (isLeaving: boolean): void => {
  leaving = isLeaving
}
/** As much as a browser sends after its page is gone. */
const LAST_SIGNS = 60_000

/** One request to this program's own interface. */
export const request = <T>(method: string, path: string, body?: unknown): Promise<Answer<T>> => {
  const text = body === undefined ? undefined : JSON.stringify(body)
  return answered<T>(() =>
    fetch(`/api/v1/${path}`, {
      method,
      signal: AbortSignal.timeout(PATIENCE_MS),
      keepalive: leaving && (text?.length ?? 0) < LAST_SIGNS,
      ...(text === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: text }),
    }),
  )
}
