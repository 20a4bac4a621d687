import { atom } from 'nanostores'
import { refreshWith } from './kept.ts'
import { say } from './notices.ts'
import { type Answer, request } from './rows.ts'

const MOST = 100

/** The kept rows of one kind, fetched when first shown and again whenever one of them may have changed. */
export const keptList = <R>(kind: string, fetched: (rows: readonly R[]) => void = () => undefined) => {
  /** Null while they are fetched for the first time. */
  const $rows = atom<readonly R[] | null>(null)
  const $failed = atom<boolean>(false)
  const refresh = async (): Promise<void> => {
    const answer = await request<{ items: R[] }>('GET', `${kind}?limit=${MOST}`)
    $failed.set(!answer.ok)
    if (!answer.ok) return
    $rows.set(answer.value.items)
    fetched(answer.value.items)
  }
  refreshWith(kind, async () => {
    if ($rows.get() !== null) await refresh()
  })
  /** Says how a change to a row went; tells whether it did. */
  const told = async (answer: Answer<unknown>, done: string, failed: string): Promise<boolean> => {
    if (!answer.ok) {
      say(`${failed}: ${answer.detail}`)
      return false
    }
    await refresh()
    say(done, 'undo')
    return true
  }
  return { $rows, $failed, refresh, told }
}
