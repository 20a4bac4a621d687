import { useState } from 'react'
import {
  type Derivation,
  derivePairs,
  type Group,
  homeName,
  homeOverlay,
  listed,
  type Note,
  type Omission,
  type Overlay,
  readOver,
  readOverlay,
  reverse,
  type Place as Spotted,
  toGlyphs,
  transposeOverlay,
} from '../../../core/index.ts'
import { TabRow } from '../../figures/TabRow.tsx'
import { Button } from '../../parts/Button.tsx'
import { type Address, go } from '../../state/address/address.ts'
import { homesFor } from '../../state/desk/judging.ts'
import { copyTable } from '../../state/page/copying.ts'
import { layWritten } from '../../state/tune/laying.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './PairsView.module.css'

const leftOf = ({ left }: Omission): string => listed(left.map((n) => n.name))

const POSITIONS = ['root position', 'first inversion', 'second inversion'] as const
const names = (notes: readonly Note[]): string => notes.map((n) => toGlyphs(n.name)).join(' ')

const groupWords = (g: Group): string =>
  g.triad ? `${toGlyphs(g.triad.name)}, ${POSITIONS[g.inversion ?? 0]}` : 'no triad in thirds'

const pairName = ([a, b]: Derivation['groups']): string | null =>
  a.triad && b.triad ? `${a.triad.name} & ${b.triad.name}` : null

interface Props {
  readonly address: Address
  readonly openChart: OpenChart
  readonly spot: Spotted
}

const scaleOf = (address: Address, openChart: OpenChart, spot: Spotted): Overlay => {
  const asked = address.scale === null ? null : readOverlay(address.scale)
  return asked?.ok ? transposeOverlay(asked.value, openChart.instrument.written) : homeOverlay(spot.home.first)
}

const ScaleChoice = ({
  scale,
  openChart,
  spot,
}: {
  readonly scale: Overlay
  readonly openChart: OpenChart
  readonly spot: Spotted
}) => {
  const [text, setText] = useState<string | null>(null)
  const [wrong, setWrong] = useState<string | null>(null)
  const choose = (name: string) => {
    const read = readOverlay(name)
    if (!read.ok) return setWrong(`“${read.error.found}” is not understood.`)
    if (![6, 7].includes(read.value.notes.length) || !read.value.material)
      return setWrong('A scale of six, seven or eight notes is needed.')
    setWrong(null)
    setText(null)
    go({ scale: transposeOverlay(read.value, reverse(openChart.instrument.written)).name, omit: null })
  }
  return (
    <form
      className={styles.scaleChoice}
      onSubmit={(e) => {
        e.preventDefault()
        if (text !== null) choose(text)
      }}
    >
      <label htmlFor="derive-scale">From</label>
      <input
        id="derive-scale"
        value={text ?? toGlyphs(scale.name)}
        aria-invalid={wrong !== null}
        onChange={(e) => setText(e.target.value)}
      />
      {homesFor(spot).map((name) => (
        <Button key={name} pressed={scale.name === name} onClick={() => choose(name)}>
          {toGlyphs(name)}
        </Button>
      ))}
      {wrong && <p role="alert">{wrong}</p>}
    </form>
  )
}

const Step = ({
  n,
  title,
  children,
}: {
  readonly n: number
  readonly title: string
  readonly children: React.ReactNode
}) => (
  <li className={styles.step}>
    <span className={styles.stepNumber} aria-hidden="true">
      {n}
    </span>
    <div>
      <h2>{title}</h2>
      {children}
    </div>
  </li>
)

const textOf = ({ scale, all }: Derivation) => ({
  title: `Pairs out of ${scale.name}`,
  heads: ['Without', 'Six notes', 'First', 'Second', 'Fade'],
  rows: all.map((o) => [
    `${o.degree} (${leftOf(o)})`,
    o.six.map((x) => x.name).join(' '),
    groupWords(o.groups[0]),
    groupWords(o.groups[1]),
    String(o.fade),
  ]),
})

/** Two triads out of a scale, step by step, and every note that could be left out, side by side. */
export const Derive = ({ address, openChart, spot }: Props) => {
  const scale = scaleOf(address, openChart, spot)
  const { weights } = openChart.settings
  const derived = derivePairs(scale, address.omit, spot, weights) ?? derivePairs(scale, null, spot, weights)
  if (!derived)
    return (
      <div className={styles.derive}>
        <ScaleChoice scale={scale} openChart={openChart} spot={spot} />
        <p>
          {toGlyphs(homeName(spot.home.first))} has neither six, seven nor eight notes, so none can be left out to give
          two triads. Choose another scale.
        </p>
      </div>
    )
  const pair = pairName(derived.groups)
  const { dropped } = derived
  return (
    <div className={styles.derive}>
      <ScaleChoice scale={scale} openChart={openChart} spot={spot} />
      <ol className={styles.steps}>
        <Step n={1} title={toGlyphs(scale.name)}>
          <TabRow notes={readOver(scale, spot, weights).notes} label={scale.name} />
        </Step>
        <Step
          n={2}
          title={
            dropped
              ? toGlyphs(`leave out ${leftOf(dropped.omission)}, the ${dropped.omission.degree}`)
              : 'six notes already'
          }
        >
          <p>{dropped ? toGlyphs(dropped.why) : 'nothing to leave out'}</p>
        </Step>
        <Step n={3} title="six notes, every other one">
          <p className={styles.woven}>
            {derived.six.map((n, i) => (
              <span key={n.name} className={i % 2 === 0 ? styles.firstNote : styles.secondNote}>
                {toGlyphs(n.name)}
              </span>
            ))}
          </p>
        </Step>
        <Step n={4} title="stack each in thirds">
          {derived.groups.map((g) => (
            <p key={names(g.notes)}>
              {names(g.notes)}: <strong>{groupWords(g)}</strong>
            </p>
          ))}
          {pair && <Button onClick={() => layWritten(pair, openChart)}>Lay {toGlyphs(pair)}</Button>}
          {derived.otherSplits.map((split) => {
            const name = split.map((t) => t.name).join(' & ')
            return (
              <Button key={name} onClick={() => layWritten(name, openChart)}>
                or {toGlyphs(name)}
              </Button>
            )
          })}
        </Step>
      </ol>
      {derived.all.length > 0 && (
        <>
          <h2>Leave out another note</h2>
          <ul className={styles.omissions}>
            {derived.all.map((o) => {
              const now = o.degree === dropped?.omission.degree
              return (
                <li key={o.degree}>
                  <button
                    type="button"
                    aria-pressed={now}
                    className={now ? styles.omissionNow : styles.omission}
                    onClick={() => go({ omit: o.degree })}
                  >
                    <strong>
                      no {toGlyphs(o.degree)} <span className={styles.soft}>({toGlyphs(leftOf(o))})</span>
                    </strong>
                    {o.groups.map((g) => (
                      <span key={names(g.notes)}>{g.triad ? toGlyphs(g.triad.name) : names(g.notes)}</span>
                    ))}
                    <span className={styles.soft}>fade {o.fade}</span>
                  </button>
                </li>
              )
            })}
          </ul>
          <p>
            <Button onClick={() => void copyTable(textOf(derived))}>Copy as text</Button>
          </p>
        </>
      )}
    </div>
  )
}
