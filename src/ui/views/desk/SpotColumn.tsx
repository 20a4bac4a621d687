import {
  beatsOf,
  homeName,
  homeOverlay,
  landingSentence,
  listed,
  type Reading,
  readOver,
  statesSentence,
  toGlyphs,
} from '../../../core/index.ts'
import type { StripSpot } from '../../figures/strip-layout.ts'
import { TabRow } from '../../figures/TabRow.tsx'
import { beatsWords, beatText, jobWords } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { chooseHome, homesFor } from '../../state/desk/judging.ts'
import { openLegend, openSchool } from '../../state/page/dialogs.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './SpotColumn.module.css'

/** What is inside, by which reason, and whether the player chose it. */
const Home = ({ reading, openChart }: { readonly reading: Reading; readonly openChart: OpenChart }) => {
  const { home } = reading.place
  const inside = readOver(homeOverlay(home.first), reading.place, openChart.settings.weights)
  const passing = inside.notes.filter((n) => n.role === 'suspension').map((n) => toGlyphs(n.note.name))
  const name = homeName(home.first)
  const offered = homesFor(reading.place)
  const yours = name !== offered[0]
  return (
    <div className={styles.home}>
      <div className={styles.homeHead}>
        <Select
          label={yours ? 'Inside here, yours' : 'Inside here'}
          value={name}
          options={[...new Set([...offered, name])].map((o) => ({ value: o, label: toGlyphs(o) }))}
          onPick={(o) => chooseHome(o, openChart)}
        />
        <Button title="o: school" onClick={openSchool}>
          School
        </Button>
      </div>
      <TabRow notes={inside.notes} label="Home scale" />
      {passing.length > 0 && <p>{listed(passing)} may pass, not rest.</p>}
      <p className={styles.soft}>Home: {home.because}.</p>
    </div>
  )
}

const Figures = ({ reading }: { readonly reading: Reading }) => (
  <div>
    <div className={styles.figures}>
      <dl>
        <div>
          <dt>Fade</dt>
          <dd>
            {reading.fade} <span className={styles.worst}>worst {reading.worst.fade}</span>
          </dd>
        </div>
        <div>
          <dt>Landing</dt>
          <dd>{reading.landing ?? '–'}</dd>
        </div>
      </dl>
      <Button tone="quiet" aria-label="What fade and landing are" title="?" onClick={openLegend}>
        ?
      </Button>
    </div>
    <p>{toGlyphs(landingSentence(reading) ?? 'No next chord to land on.')}</p>
    <p>{toGlyphs(statesSentence(reading))}</p>
  </div>
)

/** The chord in view: its job, its place, what is inside, and the overlay's figures. */
export const SpotColumn = ({ openChart, current }: { readonly openChart: OpenChart; readonly current: StripSpot }) => {
  const { chart, sounding } = openChart
  const { spot, next, reading } = current
  const length = chart ? beatsWords(beatsOf(spot)) : ''
  const from = spot.at > 0 ? ` from beat ${beatText(current.beat)}` : ''
  return (
    <section className={styles.column} aria-label="Chord">
      <div>
        <p className={styles.chord}>{toGlyphs(spot.chord.symbol)}</p>
        {sounding && <p className={styles.job}>imagined: {toGlyphs(sounding.symbol)} sounds</p>}
        <p className={styles.job}>{jobWords(reading?.place.job ?? current.job, spot.chord)}</p>
        <p className={styles.soft}>
          bar {spot.bar}, {length}
          {from}
          {next ? `, then ${toGlyphs(next.symbol)}` : ''}
        </p>
      </div>
      {reading && <Home reading={reading} openChart={openChart} />}
      {reading && <Figures reading={reading} />}
    </section>
  )
}
