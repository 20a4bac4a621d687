import { useStore } from '@nanostores/react'
import { createColumnHelper, flexRender, getCoreRowModel, useReactTable } from '@tanstack/react-table'
import { useVirtualizer } from '@tanstack/react-virtual'
import { type KeyboardEvent, useEffect, useMemo, useRef } from 'react'
import { howMany } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { type Address, go } from '../../state/address/address.ts'
import { LIBRARY_ORDERS, type LibraryOrder } from '../../state/address/parts/charts.ts'
import { $library, moreOfLibrary, openFromLibrary, searchLibrary } from '../../state/charts/library.ts'
import { rememberOpened } from '../../state/charts/recent.ts'
import type { Kept } from '../../state/kept/kept.ts'
import type { ChartRow } from '../../state/kept/row-types.ts'
import { $rows } from '../../state/kept/rows.ts'
import { FIRST } from '../../state/page/first.ts'
import styles from './Library.module.css'
import { RecentList } from './RecentList.tsx'

const ROW_PX = 46
const ORDER_NAMES: Readonly<Record<LibraryOrder, string>> = {
  '-updatedAt': 'last changed first',
  title: 'by title',
  createdAt: 'oldest first',
}

const day = new Intl.DateTimeFormat('en', { day: 'numeric', month: 'short', timeZone: 'UTC' })
const column = createColumnHelper<ChartRow>()
const COLUMNS = [
  column.accessor('title', { header: 'Title', cell: (c) => <strong>{c.getValue()}</strong> }),
  column.accessor((r) => r.tags.join(', '), { id: 'tags', header: 'Tags' }),
  column.accessor((r) => day.format(new Date(r.updatedAt)), { id: 'changed', header: 'Changed' }),
]

/** The charts there are, found as one types; only the rows in sight are drawn, more are fetched as they come near. */
export const LibraryTable = ({ address, kept }: { readonly address: Address; readonly kept: Kept }) => {
  const library = useStore($library)
  const box = useRef<HTMLDivElement>(null)
  const { search: find, order } = address
  const standings = useStore($rows.charts, FIRST)
  const ids = kept.charts
    .map((c) => c.id)
    .filter((id) => standings[id]?.row.version !== 0)
    .join()
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list is anew when there is another chart, or one less
  useEffect(() => {
    void searchLibrary(find ?? '', order)
  }, [find, order, ids])
  const items = useMemo(
    () => (library?.items ?? []).map((r): ChartRow => standings[r.id]?.row ?? r),
    [library?.items, standings],
  )
  const table = useReactTable({
    data: items,
    columns: COLUMNS,
    getCoreRowModel: getCoreRowModel(),
    getRowId: (r) => r.id,
  })
  const rows = table.getRowModel().rows
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current,
    estimateSize: () => ROW_PX,
    overscan: 8,
  })
  const seen = virtual.getVirtualItems()
  const lastSeen = seen.at(-1)?.index ?? 0
  useEffect(() => {
    if (library?.next && lastSeen > rows.length - 20) void moreOfLibrary()
  }, [lastSeen, rows.length, library?.next])

  const open = kept.chart?.id
  const title = kept.chart?.title ?? ''
  useEffect(() => {
    if (open !== undefined) rememberOpened({ id: open, title })
  }, [open, title])
  const walk = (e: KeyboardEvent) => {
    const by = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0
    const at = rows.findIndex((r) => r.id === open)
    const to = rows[Math.max(0, Math.min(rows.length - 1, at + by))]
    if (by === 0 || !to) return
    e.preventDefault()
    e.stopPropagation()
    openFromLibrary(to.id)
  }
  return (
    <section className={styles.library} aria-label="Library">
      <div className={styles.search}>
        <input
          type="search"
          aria-label="Find a chart"
          placeholder="title, chord, tag"
          value={find ?? ''}
          onChange={(e) => go({ search: e.target.value || null })}
        />
        <Select
          label="Order"
          labelHidden
          value={order}
          options={LIBRARY_ORDERS.map((o) => ({ value: o, label: ORDER_NAMES[o] }))}
          onPick={(o) => go({ order: o })}
        />
      </div>
      {library?.state === 'failed' && (
        <div role="alert" className={styles.failed}>
          <p>The library could not be read: the program is not answering. What was kept is safe.</p>
          <Button onClick={() => void searchLibrary(find ?? '', order)}>Try again</Button>
        </div>
      )}
      {library?.state === 'ready' && rows.length === 0 && (
        <p className={styles.none}>
          {find ? `No chart holds “${find}”.` : 'No chart yet. Begin a new one, or bring a file.'}
        </p>
      )}
      <div ref={box} className={styles.box}>
        <table className={styles.table} aria-rowcount={rows.length} aria-busy={library?.state === 'loading'}>
          <thead>
            {table.getHeaderGroups().map((g) => (
              <tr key={g.id}>
                {g.headers.map((h) => (
                  <th key={h.id} scope="col">
                    {flexRender(h.column.columnDef.header, h.getContext())}
                  </th>
                ))}
              </tr>
            ))}
          </thead>
          <tbody ref={(e) => void e?.style.setProperty('height', `${virtual.getTotalSize()}px`)}>
            {seen.map((v) => {
              const row = rows[v.index]
              if (!row) return null
              const isOpen = row.id === open
              return (
                <tr
                  key={row.id}
                  ref={(e) => void e?.style.setProperty('transform', `translateY(${v.start}px)`)}
                  aria-rowindex={v.index + 1}
                  aria-selected={isOpen}
                  className={isOpen ? styles.open : ''}
                >
                  {row.getVisibleCells().map((c, i) => (
                    <td key={c.id}>
                      {i === 0 ? (
                        <button
                          type="button"
                          tabIndex={isOpen || (open === undefined && v.index === 0) ? 0 : -1}
                          onClick={() => openFromLibrary(row.id)}
                          onKeyDown={walk}
                        >
                          {flexRender(c.column.columnDef.cell, c.getContext())}
                        </button>
                      ) : (
                        flexRender(c.column.columnDef.cell, c.getContext())
                      )}
                    </td>
                  ))}
                </tr>
              )
            })}
          </tbody>
        </table>
      </div>
      <RecentList open={open} />
      <p className={styles.count} role="status">
        {library?.state === 'loading'
          ? 'Looking …'
          : `${howMany(rows.length, 'chart')}${library?.next ? ' and more' : ''}`}
      </p>
    </section>
  )
}
