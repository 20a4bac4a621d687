import { useState } from 'react'
import {
  type Interval,
  type ItemOf,
  OUTSIDE_NAMES,
  OUTSIDE_SOURCES,
  readChord,
  readOverlay,
  reverse,
  toGlyphs,
  transposeChord,
  transposeOverlay,
} from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import type { Kept } from '../../state/kept/kept.ts'
import { itemFor } from '../../state/practice/items.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './PracticeView.module.css'

const KINDS = [
  { value: 'out-in', label: 'Out and in, block by block' },
  { value: 'combine', label: 'Sounds apart, then together' },
] as const
const [ROUTE_IN_HAND, OTHER_CHANGES] = OUTSIDE_SOURCES

/** What is asked for as an item in concert pitch, or what is wrong with it; names are typed in written pitch. */
const itemOf = (
  kind: (typeof KINDS)[number]['value'],
  { chord, sounds, outside, block, first, chartId, otherId }: Asked,
  back: Interval,
): { readonly name: string; readonly of: ItemOf } | string => {
  const over = chartId === '' ? chord.trim() : ''
  const read = readChord(over)
  if (chartId === '' && !read.ok) return `“${over}” is no chord: write one as Dm7 or E7alt.`
  const where = chartId === '' && read.ok ? { chord: transposeChord(read.value, back).symbol } : { chartId }
  if (kind === 'out-in') {
    const other = outside === OTHER_CHANGES && otherId !== '' ? { outsideChartId: otherId } : {}
    if (outside === OTHER_CHANGES && otherId === '') return 'Choose the chart whose changes are outside.'
    if (outside === ROUTE_IN_HAND && chartId === '') return 'A route lies over a chart: choose which.'
    const name = `${block} bars out, ${block} in: ${outside}`
    return { name, of: { kind, ...where, outside, block, first, ...other } }
  }
  const all = sounds.split(',').map((s) => s.trim())
  const heard = all.flatMap((s) => {
    const sound = readOverlay(s)
    return sound.ok ? [transposeOverlay(sound.value, back).name] : []
  })
  const unread = all.find((s) => !readOverlay(s).ok)
  if (unread !== undefined || all.length < 2)
    return all.length < 2
      ? 'Name two sounds or more, with commas between.'
      : `“${unread}” is not understood as something to lay over a chord.`
  return { name: all.join(' / '), of: { kind, ...where, sounds: heard, block } }
}

interface Asked {
  readonly chord: string
  readonly sounds: string
  readonly outside: string
  readonly block: number
  readonly first: 'out' | 'in'
  readonly chartId: string
  readonly otherId: string
}
const EMPTY: Asked = {
  ...{ chord: 'Dm7', sounds: 'F, G', outside: OUTSIDE_NAMES[0] ?? '', block: 4, first: 'in', chartId: '', otherId: '' },
}

/** A new item of blocks or of sounds, over one chord or a chart; everything else is made by `p` where it is in view. */
export const NewItem = ({ kept, openChart }: { readonly kept: Kept; readonly openChart: OpenChart }) => {
  const [kind, setKind] = useState<(typeof KINDS)[number]['value']>('out-in')
  const [asked, setAsked] = useState(EMPTY)
  const [wrong, setWrong] = useState<string | null>(null)
  const set = (change: Partial<Asked>) => {
    setAsked({ ...asked, ...change })
    setWrong(null)
  }
  const make = () => {
    const made = itemOf(kind, asked, reverse(openChart.instrument.written))
    if (typeof made === 'string') return setWrong(made)
    void itemFor(made.name, made.of)
  }
  const charts = kept.charts.map((c) => ({ value: c.id, label: c.title }))
  return (
    <details className={styles.fold}>
      <summary>A new item of blocks or sounds</summary>
      <form
        className={styles.row}
        onSubmit={(e) => {
          e.preventDefault()
          make()
        }}
      >
        <Select label="Kind" value={kind} options={KINDS} onPick={setKind} />
        <Select
          label="Over"
          value={asked.chartId}
          options={[{ value: '', label: 'one chord' }, ...charts]}
          onPick={(chartId) => set({ chartId })}
        />
        {asked.chartId === '' && (
          <label className={styles.number}>
            Chord
            <input value={asked.chord} onChange={(e) => set({ chord: e.target.value })} />
          </label>
        )}
        {kind === 'combine' ? (
          <label className={styles.number}>
            Sounds
            <input className={styles.sounds} value={asked.sounds} onChange={(e) => set({ sounds: e.target.value })} />
          </label>
        ) : (
          <>
            <Select
              label="Outside is"
              value={asked.outside}
              options={[...OUTSIDE_NAMES, ...OUTSIDE_SOURCES].map((o) => ({ value: o, label: o }))}
              onPick={(outside) => set({ outside })}
            />
            {asked.outside === OTHER_CHANGES && (
              <Select
                label="Whose"
                value={asked.otherId}
                options={[{ value: '', label: 'choose' }, ...charts]}
                onPick={(otherId) => set({ otherId })}
              />
            )}
            <Select
              label="First"
              value={asked.first}
              options={[
                { value: 'in', label: 'in' },
                { value: 'out', label: 'out' },
              ]}
              onPick={(first) => set({ first })}
            />
          </>
        )}
        <Select
          label="Bars to a block"
          value={String(asked.block)}
          options={[1, 2, 4, 8].map((n) => ({ value: String(n), label: String(n) }))}
          onPick={(n) => set({ block: Number(n) })}
        />
        <Button type="submit">Make it</Button>
      </form>
      {wrong !== null && <p role="alert">{toGlyphs(wrong)}</p>}
    </details>
  )
}
