import { useMemo, useState } from 'react'
import {
  beatsOf,
  INVERSIONS,
  inOrderOf,
  inversionPath,
  midi,
  ORDERS,
  type Overlay,
  PATHS,
  type PathKind,
  type Pitch,
  type Reading,
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
import { copyTable } from '../../state/page/copying.ts'
import { hearPitches } from '../../state/sound/overlay-hearing.ts'
import { pressPitch } from '../../state/sound/pressing.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './PairsView.module.css'

interface Props {
  readonly reading: Reading
  readonly groups: readonly [Overlay, Overlay]
  readonly openChart: OpenChart
}

const RANGE = 24
const BARS = [1, 2, 4] as const
/** Three eighths to a triad. */
const EIGHTHS = 3

const triadsIn = (openChart: OpenChart, bars: number): number => {
  const beats = openChart.current && openChart.chart ? beatsOf(openChart.current.spot, openChart.chart.metre) : 4
  const unit = openChart.chart?.metre.unit ?? 4
  return Math.max(2, Math.round((bars * beats * (8 / unit)) / EIGHTHS))
}

const inOrder = (v: Voiced, order: (typeof ORDERS)[number]): readonly Pitch[] =>
  inOrderOf(v.triad.notes, order).flatMap((n) => v.pitches.find((p) => p.note === n) ?? [])

const pathWords = (v: Voiced): string => `${toGlyphs(v.triad.name)}, ${INVERSIONS[v.inversion]}`

/** How to play a pair: the inversions nearest to each other through the bars, in one of the six orders. */
export const PlayPair = ({ reading, groups, openChart }: Props) => {
  const [order, setOrder] = useState<(typeof ORDERS)[number]>(ORDERS[0])
  const [kind, setKind] = useState<PathKind>('climb')
  const [bars, setBars] = useState<(typeof BARS)[number]>(2)
  const [step, setStep] = useState(0)
  const [neck, setNeck] = useState(WHOLE_NECK)
  const { clef, tuning, leftHanded } = openChart.settings
  const low = midi(CLEF_LOW[clef])
  const count = triadsIn(openChart, bars)
  const path = useMemo(() => inversionPath(groups, count, kind, low, midi(low + RANGE)), [groups, count, kind, low])
  const entries = useMemo(
    () =>
      path.flatMap((v) =>
        inOrder(v, order).map((p): StaffEntry => {
          const note = readingOf(reading.notes, p)
          return { pitches: [p], ...(note ? { note, fill: v.triad === groups[0] ? 'solid' : 'hollow' } : {}) }
        }),
      ),
    [path, order, reading, groups],
  )
  const here = path[Math.min(step, path.length - 1)]
  const only = useMemo(() => here && new Set<number>(here.pitches.map((p) => p.pitch)), [here])
  const strings = useMemo(() => tuningFrom(tuning), [tuning])
  const lowC = 12 * Math.floor((here?.pitches[0]?.pitch ?? low) / 12)
  const text = {
    title: `${reading.overlay.name}, ${kind}, order ${order}`,
    heads: ['Triad', 'Inversion', 'Notes'],
    rows: path.map((v) => [
      v.triad.name,
      INVERSIONS[v.inversion] ?? '',
      inOrder(v, order)
        .map((p) => `${p.note.name}${p.octave}`)
        .join(' '),
    ]),
  }
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
        <Select
          label="Bars"
          labelHidden
          value={String(bars)}
          options={BARS.map((b) => ({ value: String(b), label: b === 1 ? 'one bar' : `${b} bars` }))}
          onPick={(b) => setBars(BARS.find((x) => String(x) === b) ?? 2)}
        />
        <Button tone="strong" onClick={() => hearPitches(entries.map((e) => e.pitches[0]?.pitch ?? low))}>
          Hear it
        </Button>
        <Button onClick={() => void copyTable(text)}>Copy as text</Button>
      </div>
      <Staff
        entries={entries}
        clef={clef}
        name="Staff"
        scale={0.95}
        onPress={(i) => {
          setStep(Math.floor(i / 3))
          pressPitch(entries[i]?.pitches[0]?.pitch ?? low)
        }}
      />
      <div className={styles.line}>
        <Button disabled={step === 0} onClick={() => setStep(step - 1)}>
          ← triad before
        </Button>
        <strong>
          {here
            ? `${Math.min(step, path.length - 1) + 1} of ${path.length}: ${pathWords(here)}`
            : 'Nothing fits in this range.'}
        </strong>
        <Button disabled={step >= path.length - 1} onClick={() => setStep(step + 1)}>
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
      <div className={styles.necks}>
        <Keyboard reading={reading} low={lowC} octaves={2} only={only} onPress={pressPitch} />
        <Fretboard
          reading={reading}
          tuning={strings}
          position={neck}
          leftHanded={leftHanded}
          picking={false}
          only={only}
          onPress={pressPitch}
        />
      </div>
    </div>
  )
}
