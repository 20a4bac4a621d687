import { useStore } from '@nanostores/react'
import { useEffect, useMemo, useState } from 'react'
import { readTakeInWorker, type TakeRead, type TakeToRead } from '../../../workers/start.ts'
import { $opening, openingKey } from '../../state/kept/opening.ts'
import type { TakeRow } from '../../state/kept/row-types.ts'
import { $rows } from '../../state/kept/rows.ts'
import { FIRST } from '../../state/page/first.ts'
import { $takes, $takesNext, moreTakes } from '../../state/takes/takes.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'

/** The takes there are, the first of them fetched; `next` is undefined until they are here. */
export const useTakes = (): { readonly takes: readonly TakeRow[]; readonly next: string | null | undefined } => {
  const next = useStore($takesNext, FIRST)
  useEffect(() => {
    if (next === undefined) void moreTakes()
  }, [next])
  return { takes: useStore($takes, FIRST), next }
}

/** A kept take by its id, and whether it is on its way or gone. */
export const useTake = (id: string | null): { readonly row: TakeRow | null; readonly missing: boolean } => {
  const rows = useStore($rows.takes, FIRST)
  const opening = useStore($opening, FIRST)
  const row = id === null ? null : (rows[id]?.row ?? null)
  const missing = id !== null && row === null && opening[openingKey('takes', id)]?.state === 'missing'
  return { row, missing }
}

const askOf = (row: TakeRow, openChart: OpenChart): TakeToRead => {
  const { text, overrides, notes, plan, bars, tempo, offset } = row
  const { school, weights } = openChart.settings
  return {
    ...{ text, overrides, notes, plan, bars, tempo, offset, school, weights },
    written: openChart.instrument.written,
  }
}

/** A take as it is read, in a worker; null while that goes on, `failed` where its chart does not read any more. */
export const useTakeRead = (
  row: TakeRow | null,
  openChart: OpenChart,
): { readonly read: TakeRead | null; readonly failed: boolean } => {
  const { school, weights } = openChart.settings
  // biome-ignore lint/correctness/useExhaustiveDependencies: a name or a dispute changes nothing that is read
  const ask = useMemo(
    () => (row ? askOf(row, openChart) : null),
    [row?.id, row?.notes, row?.plan, row?.offset, school, weights, openChart.instrument],
  )
  const [came, setCame] = useState<{ readonly of: TakeToRead; readonly read: TakeRead | null } | null>(null)
  useEffect(() => {
    if (!ask) return
    let wanted = true
    const tell = (read: TakeRead | null): void => {
      if (wanted) setCame({ of: ask, read })
    }
    void readTakeInWorker(ask).then(tell, () => tell(null))
    return () => {
      wanted = false
    }
  }, [ask])
  const read = came?.of === ask ? came.read : null
  return { read, failed: ask !== null && came?.of === ask && came.read === null }
}

/** Several takes read one after another; those that are not read yet are null. */
export const useTakesRead = (rows: readonly TakeRow[], openChart: OpenChart): readonly (TakeRead | null)[] => {
  const [reads, setReads] = useState<Readonly<Record<string, TakeRead | null>>>({})
  const key = rows.map((r) => `${r.id} ${r.version}`).join()
  // biome-ignore lint/correctness/useExhaustiveDependencies: rows are told by their ids and versions
  useEffect(() => {
    let wanted = true
    const work = async (): Promise<void> => {
      for (const row of rows) {
        if (!wanted) return
        const read = await readTakeInWorker(askOf(row, openChart)).catch(() => null)
        if (wanted) setReads((before) => ({ ...before, [`${row.id} ${row.version}`]: read }))
      }
    }
    void work()
    return () => {
      wanted = false
    }
  }, [key, openChart.settings.school, openChart.settings.weights])
  return rows.map((r) => reads[`${r.id} ${r.version}`] ?? null)
}
