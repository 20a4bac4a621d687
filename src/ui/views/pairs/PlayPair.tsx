import { useMemo, useState } from 'react'
import {
  fingeringOf,
  INVERSIONS,
  inOrderOf,
  midi,
  ORDERS,
  PATHS,
  type PathKind,
  type Pitch,
  pairPath,
  toGlyphs,
  type Voiced,
  WHOLE_NECK,
} from '../../../core/index.ts'
import { Fretboard } from '../../figures/Fretboard.tsx'
import { Keyboard } from '../../figures/Keyboard.tsx'
import { NECK_CHOICES, positionName, tuningFrom } from '../../figures/neck.ts'
import { CLEF_LOW, readingOf } from '../../figures/register.ts'
import { Staff, type StaffEntry } from '../../figures/Staff.tsx'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { type Address, go } from '../../state/address/address.ts'
import { copyTable } from '../../state/page/copying.ts'
import { hearParts } from '../../state/sound/overlay-hearing.ts'
import { pressPitch } from '../../state/sound/pressing.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './PairsView.module.css'
import { type ChordRun, runsFrom } from './pair-runs.ts'

interface Props {
  readonly address: Address
  readonly openChart: OpenChart
}

const RANGE = 24
const BARS = [1, 2, 4] as const

const inOrder = (v: Voiced, order: (typeof ORDERS)[number]): readonly Pitch[] =>
  inOrderOf(v.triad.notes, order).flatMap((n) => v.pitches.find((p) => p.note === n) ?? [])

const pathWords = (v: Voiced): string => `${toGlyphs(v.triad.name)}, ${INVERSIONS[v.inversion]}`
const chordOf = (run: ChordRun): string => toGlyphs(run.reading.place.chord.symbol)

/** How to play pairs from the chord in view on: each inversion the nearest to the one before, across the chords too. */
export const PlayPair = ({ address, openChart }: Props) => {
  const [order, setOrder] = useState<(typeof ORDERS)[number]>(ORDERS[0])
  const [kind, setKind] = useState<PathKind>('climb')
  const [bars, setBars] = useState<(typeof BARS)[number]>(2)
  const [step, setStep] = useState(0)
  const [neck, setNeck] = useState(WHOLE_NECK)
  const { clef, tuning, leftHanded } = openChart.settings
  const low = midi(CLEF_LOW[clef])
  const runs = useMemo(() => runsFrom(openChart, bars), [openChart, bars])
  const path = useMemo(() => pairPath(runs, kind, low, midi(low + RANGE)), [runs, kind, low])
  const played = useMemo(
    () => path.flatMap((run, i) => run.map((v) => ({ v, run: runs[i] as ChordRun }))),
    [path, runs],
  )
  const entries = useMemo(
    () =>
      played.flatMap(({ v, run }, k) =>
        inOrder(v, order).map((p, n): StaffEntry => {
          const note = readingOf(run.reading.notes, p)
          const begins = n === 0 && played[k - 1]?.run !== run
          return {
            pitches: [p],
            ...(note ? { note, fill: v.triad === run.groups[0] ? 'solid' : 'hollow' } : {}),
            ...(begins ? { above: chordOf(run) } : {}),
          }
        }),
      ),
    [played, order],
  )
  const strings = useMemo(() => tuningFrom(tuning), [tuning])
  const { semitones } = openChart.instrument.written
  const tab = useMemo(() => {
    if (!address.tab) return null
    const sounding = entries.map((e) => midi((e.pitches[0]?.pitch ?? low) - semitones))
    return { frets: fingeringOf(sounding, strings), strings: strings.length }
  }, [address.tab, entries, strings, semitones, low])
  const here = played[Math.min(step, played.length - 1)]
  const only = useMemo(() => here && new Set<number>(here.v.pitches.map((p) => p.pitch)), [here])
  if (!here || runs.length === 0)
    return <p className={styles.soft}>Nothing fits in this range. Choose another clef in Set-up, or another pair.</p>
  const lowC = 12 * Math.floor((here.v.pitches[0]?.pitch ?? low) / 12)
  const text = {
    title: `${runs.map((r) => `${r.reading.overlay.name} over ${r.reading.place.chord.symbol}`).join(', ')}; ${kind}, order ${order}`,
    heads: ['Chord', 'Triad', 'Inversion', 'Notes'],
    rows: played.map(({ v, run }) => [
      run.reading.place.chord.symbol,
      v.triad.name,
      INVERSIONS[v.inversion] ?? '',
      inOrder(v, order)
        .map((p) => `${p.note.name}${p.octave}`)
        .join(' '),
    ]),
  }
  const hearAll = () =>
    hearParts(
      path.map((run, i) => ({
        chord: (runs[i] as ChordRun).reading.place.chord,
        pitches: run.flatMap((v) => inOrder(v, order).map((p) => p.pitch)),
      })),
    )
  return (
    <div className={styles.play}>
      <div className={styles.line}>
        <div className={styles.line} role="group" aria-label="Order of the three notes">
          {ORDERS.map((o) => (
            <Button key={o} pressed={o === order} onClick={() => setOrder(o)}>
              {o.replaceAll(' ', '–')}
            </Button>
          ))}
        </div>
        <Select
          label="Path"
          labelHidden
          value={kind}
          options={PATHS.map((p) => ({ value: p, label: p }))}
          onPick={setKind}
        />
        {runs.length === 1 && (
          <Select
            label="Bars"
            labelHidden
            value={String(bars)}
            options={BARS.map((b) => ({ value: String(b), label: b === 1 ? 'one bar' : `${b} bars` }))}
            onPick={(b) => setBars(BARS.find((x) => String(x) === b) ?? 2)}
          />
        )}
        <Button pressed={address.tab} onClick={() => go({ tab: !address.tab })}>
          Tablature
        </Button>
        <Button tone="strong" onClick={hearAll}>
          Hear it
        </Button>
        <Button onClick={() => void copyTable(text)}>Copy as text</Button>
      </div>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys */}
      <div className={styles.staff} tabIndex={0}>
        <Staff
          entries={entries}
          clef={clef}
          name="Staff"
          scale={0.95}
          wide
          tab={tab}
          onPress={(i) => {
            setStep(Math.floor(i / 3))
            pressPitch(entries[i]?.pitches[0]?.pitch ?? low)
          }}
        />
      </div>
      <div className={styles.line}>
        <Button disabled={step === 0} onClick={() => setStep(step - 1)}>
          ← triad before
        </Button>
        <strong>
          {Math.min(step, played.length - 1) + 1} of {played.length}: {pathWords(here.v)} over {chordOf(here.run)}
        </strong>
        <Button disabled={step >= played.length - 1} onClick={() => setStep(step + 1)}>
          next triad →
        </Button>
        <Select
          label="Position"
          labelHidden
          value={positionName(neck)}
          options={NECK_CHOICES.map((p) => ({ value: positionName(p), label: positionName(p) }))}
          onPick={(v) => setNeck(NECK_CHOICES.find((p) => positionName(p) === v) ?? WHOLE_NECK)}
        />
      </div>
      {!address.tab && (
        <div className={styles.necks}>
          <Keyboard reading={here.run.reading} low={lowC} octaves={2} only={only} onPress={pressPitch} />
          <Fretboard
            reading={here.run.reading}
            tuning={strings}
            position={neck}
            leftHanded={leftHanded}
            picking={false}
            only={only}
            onPress={pressPitch}
          />
        </div>
      )}
    </div>
  )
}
