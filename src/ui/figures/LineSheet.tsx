import { useMemo } from 'react'
import { fingeringOf, type LineAnalysis, metreName, midi, newMetres, type Tuning, toGlyphs } from '../../core/index.ts'
import styles from './LineSheet.module.css'
import { LineStaff } from './LineStaff.tsx'
import { type BarInTime, LINE, type LineLayout, layoutLine } from './line-band-layout.ts'
import type { StaffClef } from './notation.ts'
import { liftOver, staffHeight } from './staff-size.ts'

interface Props {
  readonly title: string
  /** For whom: instrument and clef. */
  readonly badge: string
  readonly lineAnalysis: LineAnalysis
  readonly clef: StaffClef
  /** Strings for tablature, and how far written pitch stands above what sounds; null without. */
  readonly strings: { readonly tuning: Tuning; readonly up: number } | null
}

/** A page's width, px. */
const WIDTH = 703
const MOST_IN_ROW = 4
/** Notes that a row has room for. */
const NOTES_IN_ROW = 18

/** Bars that hold notes or stand between them, in rows of as many as can be read. */
export const sheetRows = (
  bars: readonly BarInTime[],
  notes: readonly { readonly at: number }[],
): readonly (readonly BarInTime[])[] => {
  const [first, last] = [notes[0]?.at ?? 0, notes.at(-1)?.at ?? 0]
  const used = bars.filter((b) => b.to > first && b.from <= last)
  const most = Math.max(1, ...used.map((b) => notes.filter((n) => n.at >= b.from && n.at < b.to).length))
  const count = Math.max(1, Math.min(MOST_IN_ROW, Math.floor(NOTES_IN_ROW / most)))
  return Array.from({ length: Math.ceil(used.length / count) }, (_, i) => used.slice(i * count, (i + 1) * count))
}

const rowLayout = (whole: LineLayout, row: readonly BarInTime[], all: number): LineLayout => {
  const [from, to] = [row[0]?.from ?? 0, row.at(-1)?.to ?? 1]
  const share = row.length / all
  const room = (WIDTH - LINE.margin) * share
  return { ...whole, width: LINE.margin + room, x: (tick) => LINE.margin + ((tick - from) / (to - from)) * room }
}

/** A line as a page: its staff in rows, the chords over it, each note's degree under it. Grey-safe. */
export const LineSheet = ({ title, badge, lineAnalysis, clef, strings }: Props) => {
  const { audit, chart } = lineAnalysis
  const { notes, timeline } = audit
  const tab = useMemo(
    () =>
      strings && {
        frets: fingeringOf(
          notes.map((n) => midi(n.pitch - strings.up)),
          strings.tuning,
        ),
        strings: strings.tuning.length,
      },
    [notes, strings],
  )
  const lift = liftOver(
    notes.reduce((most, n) => Math.max(most, n.pitch), 0),
    clef,
  )
  const whole = useMemo(
    () => layoutLine(audit, chart, { withTab: tab !== null, zoom: 0, low: true, lift }),
    [audit, chart, tab, lift],
  )
  const rows = useMemo(() => sheetRows(whole.bars, notes), [whole, notes])
  const inRow = rows[0]?.length ?? 1
  const metres = useMemo(() => newMetres(chart), [chart])
  const isFirst = (row: readonly BarInTime[], at: number): boolean => row === rows[0] && at === row[0]?.from
  const high = staffHeight(tab !== null)
  return (
    <div className={styles.sheet} data-sheet>
      <header className={styles.top}>
        <h1>{toGlyphs(title)}</h1>
        <p>{badge}</p>
      </header>
      {rows.map((row) => {
        const layout = rowLayout(whole, row, inRow)
        const [from, to] = [row[0]?.from ?? 0, row.at(-1)?.to ?? 0]
        const chorus = timeline.length > 0 ? Math.floor(from / timeline.length) * timeline.length : 0
        const under = notes.filter((n) => n.at >= from && n.at < to)
        return (
          <div key={from} className={styles.row}>
            <svg width={WIDTH} height={26 + lift} className={styles.words} aria-hidden="true">
              {timeline.soundings
                .filter((s) => chorus + s.from >= from && chorus + s.from < to)
                .map(({ from: at, spot: { spot } }) => (
                  <text key={at} className={styles.symbol} x={layout.x(chorus + at) + 4} y={20}>
                    {spot.at === 0 && (isFirst(row, chorus + at) || metres.has(spot.bar)) && (
                      <tspan className={styles.metre}>{metreName(spot.metre)} </tspan>
                    )}
                    {toGlyphs(spot.chord.symbol)}
                  </text>
                ))}
            </svg>
            <div className={styles.staff} style={{ height: high }}>
              <LineStaff
                chart={chart}
                keyHere={chart.key}
                audit={audit}
                layout={layout}
                bars={row}
                clef={clef}
                tab={tab}
                onPaper
                goesOn={row !== rows.at(-1)}
              />
            </div>
            <svg width={WIDTH} height={22} className={styles.words} role="img" aria-label="Degrees">
              {under.map((n) => (
                <text key={n.at} className={styles.degree} x={layout.x(n.at) + 16} y={15}>
                  {toGlyphs(n.degree ?? '')}
                </text>
              ))}
            </svg>
          </div>
        )
      })}
      <p className={styles.foot}>
        Under each note its degree over the chord. Slow and clean first; rest, stop at pain; ask a teacher.
      </p>
    </div>
  )
}
