/** Looks no older than so many ms count. */
const REMEMBERED_MS = 4000

/**
 * What one clock is ahead of another, in ms, from looks at both. The second goes by leaps and lags behind between them, so
 * that the most that was seen counts.
 */
export const clockReader = () => {
  let looks: readonly { readonly at: number; readonly ahead: number }[] = []
  return (at: number, other: number): number => {
    looks = [...looks.filter((l) => l.at > at - REMEMBERED_MS), { at, ahead: other - at }]
    return Math.max(...looks.map((l) => l.ahead))
  }
}
