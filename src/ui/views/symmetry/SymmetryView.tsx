import { useMemo, useState } from 'react'
import {
  type Contents,
  contentsOf,
  nameOn,
  type Overlay,
  pitchClass,
  placeOf,
  plainNote,
  readOver,
  readOverlay,
  repeatsOf,
  reverse,
  type Place as Spotted,
  type StoodFor,
  setOf,
  toGlyphs,
  transposeChord,
  transpositionsOf,
  WHOLE_NECK,
} from '../../../core/index.ts'
import { Fretboard } from '../../figures/Fretboard.tsx'
import { Keyboard } from '../../figures/Keyboard.tsx'
import { tuningFrom } from '../../figures/neck.ts'
import { CLEF_C } from '../../figures/register.ts'
import { TabRow } from '../../figures/TabRow.tsx'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { go } from '../../state/address/address.ts'
import { copyTable } from '../../state/page/copying.ts'
import { pressPitch } from '../../state/sound/pressing.ts'
import { laySketch } from '../../state/tune/asking.ts'
import { layNamed } from '../../state/tune/in-hand.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import type { ViewProps } from '../view.ts'
import { concertName, Held, type HeldOn, heldByRoot, sendToDesk, shortName } from './Held.tsx'
import styles from './SymmetryView.module.css'
import { diminishedIn, onRoot, SYMMETRIC, scaleInView, spotFor } from './scale.ts'

const NUMBERS = [
  'no',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
]
const times = (n: number): string => NUMBERS[n] ?? String(n)

const examine = (overlay: Overlay, openChart: OpenChart): void => go({ scale: concertName(overlay, openChart) })

/** The dominants a diminished chord stands for, and what each hears in the scale. */
const Dominants = ({ scale, openChart }: { readonly scale: Overlay; readonly openChart: OpenChart }) => {
  const found = diminishedIn(scale, openChart)
  if (!found) return null
  const { chord, stands } = found
  const heard = ({ dominant }: StoodFor) =>
    readOver(scale, placeOf(dominant, null, openChart.settings.school), openChart.settings.weights).notes
  return (
    <section>
      <h2>Behind {toGlyphs(chord.symbol)} stand four dominants</h2>
      <ul className={styles.dominants}>
        {stands.map((s) => (
          <li key={s.dominant.symbol}>
            <Button
              onClick={() =>
                laySketch(
                  transposeChord(s.dominant, reverse(openChart.instrument.written)).symbol,
                  concertName(scale, openChart),
                )
              }
            >
              {toGlyphs(s.dominant.symbol)}
            </Button>
            <span>
              {toGlyphs(
                `${chord.root.name} is its ${s.bassDegree}; it hears ${heard(s)
                  .map((n) => n.degree)
                  .join(' ')}`,
              )}
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}

const Choice = ({ scale, openChart }: { readonly scale: Overlay; readonly openChart: OpenChart }) => {
  const roots = Array.from({ length: 12 }, (_, pc) => plainNote(pitchClass(pc)).name)
  const root = roots.find((_, pc) => pc === scale.root.pc) ?? scale.root.name
  const choose = (name: string) => {
    const read = readOverlay(name)
    if (read.ok) examine(read.value, openChart)
  }
  return (
    <div className={styles.choice}>
      <Select
        label="Root"
        labelHidden
        value={root}
        options={roots.map((r) => ({ value: r, label: toGlyphs(r) }))}
        onPick={(r) => choose(onRoot(r, scale))}
      />
      <Select
        label="Scale"
        labelHidden
        value={scale.material?.name ?? ''}
        options={[...SYMMETRIC, ...(scale.material && !SYMMETRIC.includes(scale.material) ? [scale.material] : [])].map(
          (m) => ({ value: m.name, label: toGlyphs(m.name) }),
        )}
        onPick={(name) => {
          const material = SYMMETRIC.find((m) => m.name === name)
          if (material) choose(nameOn(scale.root.name, material))
        }}
      />
      <Button onClick={() => sendToDesk(scale, openChart)}>To the Desk</Button>
      {openChart.concert && (
        <Button tone="strong" title="into the route in hand" onClick={() => layNamed(concertName(scale, openChart))}>
          Lay here
        </Button>
      )}
    </div>
  )
}

const Pictures = ({
  scale,
  spot,
  openChart,
}: {
  readonly scale: Overlay
  readonly spot: Spotted
  readonly openChart: OpenChart
}) => {
  const [onNeck, setOnNeck] = useState(false)
  const reading = useMemo(
    () => readOver(scale, spot, openChart.settings.weights),
    [scale, spot, openChart.settings.weights],
  )
  const repeats = repeatsOf(scale)
  const marks = setOf(repeats.map((r) => r.root.pc))
  const { clef, tuning, leftHanded } = openChart.settings
  const strings = useMemo(() => tuningFrom(tuning), [tuning])
  return (
    <section className={styles.pictures} aria-label="Where it repeats">
      <div className={styles.line}>
        <Button pressed={!onNeck} onClick={() => setOnNeck(false)}>
          Keyboard
        </Button>
        <Button pressed={onNeck} onClick={() => setOnNeck(true)}>
          Fretboard
        </Button>
        <span className={styles.soft}>
          {repeats.length > 1
            ? `It begins again at each ▾: ${repeats.map((r) => toGlyphs(r.root.name)).join(', ')}.`
            : 'It begins again only at the octave.'}
        </span>
      </div>
      <div className={styles.figure}>
        {onNeck ? (
          <Fretboard
            reading={reading}
            tuning={strings}
            position={WHOLE_NECK}
            leftHanded={leftHanded}
            picking={false}
            marks={marks}
            onPress={pressPitch}
          />
        ) : (
          <Keyboard reading={reading} low={CLEF_C[clef]} octaves={2} marks={marks} onPress={pressPitch} />
        )}
      </div>
    </section>
  )
}

const textOf = (scale: Overlay, c: Contents, held: readonly HeldOn[], spot: Spotted) => ({
  title: `${scale.name}: ${scale.notes.map((n) => n.name).join(' ')}; over ${spot.chord.symbol}`,
  heads: ['Root', 'Holds', 'Degrees', 'Fade', 'Lands'],
  rows: [
    ...held.flatMap(({ root, rows }) =>
      rows.map((r) => [
        root,
        shortName(r.overlay),
        r.notes.map((n) => n.degree).join(' '),
        String(r.fade),
        String(r.landing ?? '–'),
      ]),
    ),
    ['polychords', c.polychords.map((p) => `${p.upper.name}|${p.lower.name}`).join(', '), '', '', ''],
    ['comes back after', `${c.periodSemitones} semitones`, '', '', ''],
  ],
})

/** What a symmetric scale holds, where it repeats, and which dominants stand behind a diminished chord. */
const SymmetryView = ({ address, openChart }: ViewProps) => {
  const scale = scaleInView(address, openChart)
  const contents = useMemo(() => contentsOf(scale), [scale])
  const spot = spotFor(scale, openChart)
  const { weights } = openChart.settings
  const held = useMemo(() => heldByRoot(contents, spot, weights), [contents, spot, weights])
  const others = transpositionsOf(scale)
  const { periodSemitones: period } = contents
  const isWholeTone = period === 2
  return (
    <div className={styles.view}>
      <div className={styles.left}>
        <h1>{toGlyphs(scale.name)}</h1>
        <Choice scale={scale} openChart={openChart} />
        <TabRow notes={readOver(scale, spot, openChart.settings.weights).notes} label={scale.name} />
        <p>
          {period === 12
            ? 'It comes back only at the octave: twelve different ones.'
            : `It comes back every ${times(period)} ${period === 1 ? 'semitone' : 'semitones'}, so there ${period === 1 ? 'is only one' : `are only ${times(period)} different ones`}.`}{' '}
          <span className={styles.soft}>Read over {toGlyphs(spot.chord.symbol)}.</span>
        </p>
        <div className={styles.chips}>
          {others.map((o, i) => (
            <Button key={o.name} pressed={i === 0} onClick={() => examine(o, openChart)}>
              {toGlyphs(isWholeTone && i === 1 ? `the other one: ${o.name}` : o.name)}
            </Button>
          ))}
        </div>
        <Dominants scale={scale} openChart={openChart} />
      </div>
      <div className={styles.right}>
        <Pictures scale={scale} spot={spot} openChart={openChart} />
        {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys */}
        <div className={styles.held} tabIndex={0}>
          <Held contents={contents} held={held} spot={spot} openChart={openChart} />
          <Button onClick={() => void copyTable(textOf(scale, contents, held, spot))}>Copy as text</Button>
        </div>
      </div>
    </div>
  )
}

export default SymmetryView
