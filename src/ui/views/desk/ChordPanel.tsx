import { useState } from 'react'
import {
  ANYTHING,
  chordToneModes,
  disagreements,
  homeOverlay,
  placeOf,
  type Reading,
  rankOverlays,
  readOver,
  rootlessNinth,
  STACKS,
  stacksOf,
  tensionEffects,
  toGlyphs,
  type Weights,
} from '../../../core/index.ts'
import { TabRow } from '../../figures/TabRow.tsx'
import { Button } from '../../parts/Button.tsx'
import { layWritten } from '../../state/tune/laying.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import panels from './panels.module.css'

type StackKind = keyof typeof STACKS
const KINDS = Object.keys(STACKS) as StackKind[]
const UPPER_SHOWN = 10

interface Props {
  readonly openChart: OpenChart
  readonly reading: Reading
}

const Lay = ({
  name,
  openChart,
  note,
}: {
  readonly name: string
  readonly openChart: OpenChart
  readonly note: string
}) => (
  <Button onClick={() => layWritten(name, openChart)}>
    {toGlyphs(name)} <small>{toGlyphs(note)}</small>
  </Button>
)

/** What really sounds where the player imagines another chord. */
const Sounds = ({ openChart, reading, weights }: Props & { readonly weights: Weights }) => {
  const imagined = openChart.current?.spot.chord
  if (!openChart.sounding || imagined?.kind !== 'chord') return null
  const there = readOver(reading.overlay, placeOf(imagined, reading.place.next, reading.place.school), weights)
  const differ = disagreements(there, reading)
  return (
    <div>
      <h2>
        {toGlyphs(imagined.symbol)} is imagined, {toGlyphs(openChart.sounding.symbol)} sounds
      </h2>
      {differ.length === 0 && <p>They agree on every note.</p>}
      {differ.map((d) => (
        <p key={d.name}>
          {toGlyphs(
            `${d.name} is the ${d.imagined.degree} (${d.imagined.role}) of what you imagine, the ${d.sounding.degree} (${d.sounding.role}) of what sounds.`,
          )}
        </p>
      ))}
    </div>
  )
}

/** What grows on the chord itself: modes of its tones, upper structures, stacks of its scale, tensions that change it. */
export const ChordPanel = ({ openChart, reading }: Props) => {
  const [kind, setKind] = useState<StackKind>('triads')
  const { weights } = openChart.settings
  const { place } = reading
  const ninth = rootlessNinth(place, weights)
  const upper = rankOverlays(place, { ...ANYTHING, families: ['triad'], sort: 'fade' }, weights)
    .map((r) => readOver(r.overlay(), place, weights))
    .filter((r) => r.counts.chord < r.notes.length && r.counts.suspension + r.counts.outside === 0)
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and must be reached by keyboard
    <section className={panels.panel} aria-label="The chord’s own" tabIndex={0}>
      <div className={panels.groups}>
        <Sounds openChart={openChart} reading={reading} weights={weights} />
        <div>
          <h2>From each chord tone, the home scale is</h2>
          <div className={panels.chips}>
            {chordToneModes(place).map((m) =>
              m.mode ? (
                <Lay key={m.degree} name={m.mode.name} openChart={openChart} note={`from the ${m.degree}`} />
              ) : (
                <span key={m.degree} className={panels.soft}>
                  {toGlyphs(`${m.from.name}, the ${m.degree}: no name of its own`)}
                </span>
              ),
            )}
            {ninth && (
              <Lay
                name={ninth.overlay.name}
                openChart={openChart}
                note="from the 3: the ninth chord without its root"
              />
            )}
          </div>
        </div>
        <div>
          <h2>Triads on top, furthest in first (fade)</h2>
          <div className={panels.chips}>
            {upper.slice(0, UPPER_SHOWN).map((r) => (
              <Lay
                key={r.overlay.name}
                name={r.overlay.name}
                openChart={openChart}
                note={`${r.notes.map((n) => n.degree).join(' ')}: ${r.fade}`}
              />
            ))}
          </div>
        </div>
        <div>
          <div className={panels.line}>
            <h2>The home scale in</h2>
            {KINDS.map((k) => (
              <Button key={k} pressed={k === kind} onClick={() => setKind(k)}>
                {k}
              </Button>
            ))}
          </div>
          <div className={panels.two}>
            {stacksOf(homeOverlay(place.home.first), kind, place, weights).map((s) => (
              <div key={s.degree} className={panels.line}>
                <TabRow notes={s.notes} label={`On the ${s.degree}`} />
                {s.makes && <Lay name={s.makes.name} openChart={openChart} note={`on the ${s.degree}`} />}
              </div>
            ))}
          </div>
        </div>
        <div>
          <h2>Which tension would change the home scale</h2>
          <p>
            {tensionEffects(place)
              .map((t) => toGlyphs(`${t.tension} ${t.changes ? `makes it ${t.scale}` : 'keeps it'}`))
              .join('; ')}
            .
          </p>
        </div>
      </div>
    </section>
  )
}
