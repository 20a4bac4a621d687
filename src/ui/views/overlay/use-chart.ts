import { useStore } from '@nanostores/react'
import { useEffect } from 'react'
import { $opening, openingKey, openRow } from '../../state/kept/opening.ts'
import type { ChartRow } from '../../state/kept/row-types.ts'
import { $rows } from '../../state/kept/rows.ts'
import { FIRST } from '../../state/page/first.ts'

/** A kept chart beside the open one, fetched when it is first asked for; `failed` says why it cannot be had. */
export const useChart = (id: string | null): { readonly row: ChartRow | null; readonly failed: string | null } => {
  const row = useStore($rows.charts, FIRST)[id ?? '']?.row ?? null
  const opening = useStore($opening, FIRST)[openingKey('charts', id ?? '')]
  useEffect(() => {
    if (id !== null) void openRow('charts', id)
  }, [id])
  const why =
    opening?.state === 'failed' ? opening.why : opening?.state === 'missing' ? 'It is not here any more.' : null
  return { row, failed: row === null ? why : null }
}
