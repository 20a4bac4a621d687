import { useMemo } from 'react'
import {
  type Overlay,
  type Reading,
  readOver,
  reverse,
  type Served,
  servesOver,
  toGlyphs,
  transposeChord,
} from '../../../core/index.ts'
import { beatText } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { go } from '../../state/address/address.ts'
import { laySketch } from '../../state/tune/asking.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import panels from './panels.module.css'

const SHOWN = 14
const GROUPS = [
  ['in', 'Wholly inside'],
  ['altered', 'With tensions that want to move'],
  ['out', 'With notes outside, the nearest'],
] as const

interface Props {
  readonly openChart: OpenChart
  readonly overlay: Overlay
}

const spotsServed = (
  openChart: OpenChart,
  overlay: Overlay,
): readonly { readonly reading: Reading; readonly index: number }[] =>
  openChart.spots
    .flatMap((s) =>
      s.reading ? [{ reading: readOver(overlay, s.reading.place, openChart.settings.weights), index: s.index }] : [],
    )
    .sort((a, b) => a.reading.fade - b.reading.fade)

/** Over which chords, and where in this chart, the overlay serves too. */
export const ElsewherePanel = ({ openChart, overlay }: Props) => {
  const { school, weights } = openChart.settings
  const served = useMemo(() => servesOver(overlay, school, weights), [overlay, school, weights])
  const spots = useMemo(() => spotsServed(openChart, overlay), [openChart, overlay])
  const lay = ({ chord }: Served) => {
    const concert = openChart.concert?.overlay.name
    if (concert) laySketch(transposeChord(chord, reverse(openChart.instrument.written)).symbol, concert)
  }
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and must be reached by keyboard
    <section className={panels.panel} aria-label="Where else" tabIndex={0}>
      <div className={panels.groups}>
        <div>
          <h2>In this chart, nearest first (fade, landing)</h2>
          <div className={panels.chips}>
            {spots.slice(0, SHOWN).map(({ reading, index }) => {
              const s = openChart.spots[index]
              if (!s) return null
              return (
                <Button
                  key={index}
                  onClick={() =>
                    go({
                      bar: s.spot.bar,
                      beat: s.beat,
                      over: openChart.concert?.overlay.name ?? null,
                      home: null,
                      sounds: null,
                    })
                  }
                >
                  {toGlyphs(reading.place.chord.symbol)}{' '}
                  <small>
                    bar {s.spot.bar}
                    {s.beat > 1 ? `, beat ${beatText(s.beat)}` : ''}: {reading.fade}, {reading.landing ?? '–'}
                  </small>
                </Button>
              )
            })}
          </div>
        </div>
        {GROUPS.map(([sits, words]) => {
          const here = served.filter((s) => s.sits === sits).slice(0, SHOWN)
          if (here.length === 0) return null
          return (
            <div key={sits}>
              <h2>{words} (fade)</h2>
              <div className={panels.chips}>
                {here.map((s) => (
                  <Button key={s.chord.symbol} onClick={() => lay(s)}>
                    {toGlyphs(s.chord.symbol)} <small>{s.fade}</small>
                  </Button>
                ))}
              </div>
            </div>
          )
        })}
      </div>
    </section>
  )
}
