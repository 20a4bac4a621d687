import type { Database } from '../sql.ts'

/** Told when somebody is let in no longer, or the door opens or shuts. */
export const DEVICES = JSON.stringify({ news: 'devices' })

export type Hears = (told: string) => void
const hearers = new Set<Hears>()
/** One connection to the database serves all that hear in this process. */
let heard: { readonly db: Database; readonly ready: Promise<void> } | null = null

/** Hears what is told in this and every other process on the database; gives what ends that, true where it had not ended. */
export const hear = async (db: Database, hears: Hears): Promise<() => boolean> => {
  if (heard?.db !== db)
    heard = {
      db,
      ready: db.listen((told) => {
        for (const each of hearers) each(told)
      }),
    }
  await heard.ready
  hearers.add(hears)
  return () => hearers.delete(hears)
}
