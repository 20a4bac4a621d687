import { useMemo } from 'react'
import { fingeringOf, midi, type Reading, type Tuning, toGlyphs, triadOf } from '../../core/index.ts'
import styles from './ChartSheet.module.css'
import { FILL_OF } from './NoteTab.tsx'
import type { StaffClef } from './notation.ts'
import { readingOf, scaleUp } from './register.ts'
import { Staff, type StaffEntry } from './Staff.tsx'

/** A chord on paper: what lies over it, or nothing; `goesOn` where the overlay of the chord before is kept. */
export interface SheetChord {
  readonly symbol: string
  readonly reading: Reading | null
  readonly goesOn: boolean
}

export interface SheetBar {
  readonly number: number
  readonly section: string | null
  /** Where it is the first or another one. */
  readonly metre: string | null
  readonly chords: readonly SheetChord[]
}

interface Props {
  readonly title: string
  readonly route: string | null
  /** For whom: instrument and clef. */
  readonly badge: string
  readonly bars: readonly SheetBar[]
  readonly clef: StaffClef
  /** Strings for tablature, and how far written pitch stands above what sounds; null without. */
  readonly strings: { readonly tuning: Tuning; readonly up: number } | null
}

/** What a staff of so many notes needs of a page's width, in quarters. */
const NARROW_NOTES = 3
const isPlain = (c: SheetChord): boolean => c.reading === null || c.goesOn

const LINE = 4
/** Quarters of a line that a bar needs: each of its staves one, or two where it has many notes. */
const quarters = ({ chords }: SheetBar): number => {
  const staves = chords.filter((c) => !isPlain(c)).map((c) => ((c.reading?.notes.length ?? 0) > NARROW_NOTES ? 2 : 1))
  return Math.max(
    1,
    Math.min(
      LINE,
      staves.reduce((sum, n) => sum + n, 0),
    ),
  )
}

/** Bars in lines of four, two or one, by what their staves need. */
export const sheetLines = (bars: readonly SheetBar[]): readonly (readonly SheetBar[])[] => {
  const lines: SheetBar[][] = []
  let room = 0
  for (const bar of bars) {
    const needs = quarters(bar)
    if (room < needs || bar.section !== null) {
      lines.push([])
      room = LINE
    }
    lines.at(-1)?.push(bar)
    room -= needs
  }
  return lines
}

const Chord = ({ chord, clef, strings }: Pick<Props, 'clef' | 'strings'> & { readonly chord: SheetChord }) => {
  const { reading } = chord
  const pitches = useMemo(() => (reading ? scaleUp(reading.overlay, clef) : []), [reading, clef])
  const entries = useMemo(
    () =>
      pitches.map((p): StaffEntry => {
        const note = reading ? readingOf(reading.notes, p) : undefined
        return { pitches: [p], ...(note && reading ? { note, fill: FILL_OF[triadOf(reading, note) ?? 'first'] } : {}) }
      }),
    [pitches, reading],
  )
  const tab = useMemo(
    () =>
      strings && {
        frets: fingeringOf(
          pitches.map((p) => midi(p.pitch - strings.up)),
          strings.tuning,
        ),
        strings: strings.tuning.length,
      },
    [pitches, strings],
  )
  return (
    <div className={styles.chord}>
      <p className={styles.symbol}>{toGlyphs(chord.symbol)}</p>
      {chord.goesOn && <p className={styles.what}>goes on</p>}
      {reading && !chord.goesOn && (
        <>
          <p className={styles.what}>
            <strong>{toGlyphs(reading.overlay.name)}</strong>{' '}
            <span>
              fade {reading.fade}, lands {reading.landing ?? '–'}
            </span>
          </p>
          <Staff
            entries={entries}
            clef={clef}
            name={toGlyphs(reading.overlay.name)}
            scale={0.68}
            small
            exits
            tab={tab}
          />
        </>
      )}
    </div>
  )
}

/** A chart with what is laid over it: each chord's overlay on the staff, its degrees, its exits into the next. Grey-safe. */
export const ChartSheet = ({ title, route, badge, bars, clef, strings }: Props) => (
  <div className={styles.sheet} data-sheet>
    <header className={styles.top}>
      <h1>
        {toGlyphs(title)}
        {route && <span> {toGlyphs(route)}</span>}
      </h1>
      <p>{badge}</p>
    </header>
    {sheetLines(bars).map((line) => (
      <ol key={line[0]?.number} className={styles.line}>
        {line.map((bar) => (
          <li key={bar.number} className={styles.bar} data-quarters={quarters(bar)}>
            <p className={styles.number}>
              {bar.number}
              {bar.section && <strong> {bar.section}</strong>}
              {bar.metre && ` ${bar.metre}`}
            </p>
            <div className={styles.chords}>
              {bar.chords.map((c, i) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: chords of a bar have no other name than their place
                <Chord key={i} chord={c} clef={clef} strings={strings} />
              ))}
            </div>
          </li>
        ))}
      </ol>
    ))}
    <p className={styles.foot}>
      Under each note its degree, then its way into the next chord: thick a half step, thin a whole step, dotted held,
      and to which note; a cut stub has none. Flat chord tone, arched extension, slanted altered, hooked suspension,
      torn outside. Slow and clean first; rest, stop at pain; ask a teacher.
    </p>
  </div>
)
