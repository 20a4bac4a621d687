import { useMemo } from 'react'
import { figuresOf, toGlyphs } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { go } from '../../state/address/address.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { useTakes, useTakesRead } from '../overlay/use-take.ts'
import { CoursePicture } from './CoursePicture.tsx'
import type { Course } from './course-chart.ts'
import { dayText } from './words.ts'

const LAST = 12
const percent = (share: number | null): string => (share === null ? '–' : `${Math.round(share * 100)}`)

/** Landing and staying out too long, take by take. */
export const TakesCourse = ({ openChart }: { readonly openChart: OpenChart }) => {
  const { takes } = useTakes()
  const rows = useMemo(() => [...takes].sort((a, b) => (a.createdAt < b.createdAt ? -1 : 1)).slice(-LAST), [takes])
  const reads = useTakesRead(rows, openChart)
  const figures = reads.map((read) => (read ? figuresOf(read.reading) : null))
  const told = JSON.stringify(figures)
  // biome-ignore lint/correctness/useExhaustiveDependencies: figures are told by their words
  const landed = useMemo((): Course => {
    const share = figures.map((f) => (f === null || f.ways === 0 ? null : Math.round((f.landed / f.ways) * 100)))
    return { labels: rows.map((r) => dayText(r.createdAt)), line: share, most: 100 }
  }, [told, rows])
  // biome-ignore lint/correctness/useExhaustiveDependencies: the same
  const over = useMemo(
    (): Course => ({ labels: rows.map((r) => dayText(r.createdAt)), bars: figures.map((f) => f?.beatsOver ?? 0) }),
    [told, rows],
  )
  if (rows.length === 0)
    return (
      <p>
        No take yet.{' '}
        <Button onClick={() => go({ view: 'practice', practise: 'takes', take: null })}>Record the first one</Button>
      </p>
    )
  const table = rows.map((r, i) => {
    const f = figures[i]
    return [
      toGlyphs(r.name),
      f ? `${f.landed} of ${f.ways}` : '…',
      f ? String(f.beatsOver) : '…',
      percent(f?.kept ?? null),
    ]
  })
  const heads = ['take', 'landed in time', 'beats out past the way home', 'in the plan, of a hundred']
  return (
    <>
      <CoursePicture
        title="Ways home landed in time, of a hundred, by take"
        course={landed}
        heads={heads}
        rows={table}
      />
      <CoursePicture title="Beats outside past the way home, by take" course={over} heads={heads} rows={table} />
    </>
  )
}
