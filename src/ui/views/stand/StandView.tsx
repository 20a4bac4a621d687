import { useState } from 'react'
import { noteSentence, type Reading, toGlyphs } from '../../../core/index.ts'
import { Slope } from '../../figures/Slope.tsx'
import { beatsWords, beatText } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { go } from '../../state/address/address.ts'
import { hearNote } from '../../state/sound/overlay-hearing.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import type { ViewProps } from '../view.ts'
import styles from './StandView.module.css'

/** Where the next chord comes, in words. */
const change = (openChart: OpenChart): string => {
  const { current, spots, chart } = openChart
  if (!current?.next || !chart) return 'no next chord'
  const after = spots[current.index + 1] ?? spots[0]
  const length = beatsWords(current.spot.length / ((960 * 4) / chart.metre.unit))
  const where = after ? `bar ${after.spot.bar}${after.beat > 1 ? `, beat ${beatText(after.beat)}` : ''}` : ''
  return `after ${length}, ${where}`
}

const Far = ({ reading, openChart }: { readonly reading: Reading; readonly openChart: OpenChart }) => {
  const [chosen, setChosen] = useState<{ readonly of: Reading; readonly index: number } | null>(null)
  const index = chosen?.of === reading ? chosen.index : null
  const { next } = reading.place
  return (
    <>
      <section className={styles.facts} aria-label="Chord" aria-live="polite">
        <h1 className={styles.chord}>{toGlyphs(reading.place.chord.symbol)}</h1>
        <p className={styles.overlay}>{toGlyphs(reading.overlay.name)}</p>
        {openChart.inHand && <p className={styles.route}>route: {toGlyphs(openChart.inHand)}</p>}
        <p className={styles.figures}>
          fade <strong>{reading.fade}</strong>
          <br />
          lands <strong>{reading.landing ?? '–'}</strong>
        </p>
        <p className={styles.next}>
          then <strong>{next ? toGlyphs(next.symbol) : '–'}</strong>
          <br />
          <span>{change(openChart)}</span>
        </p>
      </section>
      <div className={styles.slope}>
        <Slope
          reading={reading}
          chosen={index}
          onChoose={(i) => setChosen({ of: reading, index: i })}
          onHear={hearNote}
          scale={1.75}
        />
        {index !== null && reading.notes[index] && (
          <p className={styles.sentence}>{toGlyphs(noteSentence(reading.notes[index], reading))}</p>
        )}
      </div>
    </>
  )
}

/** Chord, next chord, overlay and slope, large enough to be read from two metres. */
const StandView = ({ openChart }: ViewProps) => {
  const reading = openChart.current?.reading
  if (!reading)
    return (
      <div className={styles.empty}>
        <h1>{openChart.current ? 'N.C.' : 'Nothing on the stand'}</h1>
        <p>{openChart.current ? 'No chord sounds here.' : 'Open a chart on the Desk first.'}</p>
        <Button onClick={() => go({ view: 'desk' })}>To the Desk</Button>
      </div>
    )
  return (
    <div className={styles.stand}>
      <Far reading={reading} openChart={openChart} />
    </div>
  )
}

export default StandView
