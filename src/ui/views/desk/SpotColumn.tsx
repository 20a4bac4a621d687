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
import type { Desk } from '../../stores/desk.ts'
import styles from './SpotColumn.module.css'

const Home = ({ reading }: { readonly reading: Reading }) => {
  const { home } = reading.place
  const inside = readOver(homeOverlay(home.first), reading.place)
  const passing = inside.notes.filter((n) => n.role === 'suspension').map((n) => toGlyphs(n.note.name))
  const others = home.others.map((o) => toGlyphs(homeName(o).replace(`${o.root.name} `, '')))
  return (
    <div>
      <p className={styles.small}>Inside here</p>
      <h2 className={styles.scale}>{toGlyphs(homeName(home.first))}</h2>
      <TabRow reading={inside} label="Home scale" />
      {passing.length > 0 && <p className={styles.why}>{listed(passing)} may pass, not rest.</p>}
      <p className={styles.soft}>
        Home: {home.because}.{others.length > 0 && ` Also heard as ${listed(others, 'or')}.`}
      </p>
    </div>
  )
}

const Figures = ({ reading }: { readonly reading: Reading }) => (
  <div>
    <dl className={styles.figures}>
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
    <p>{toGlyphs(landingSentence(reading) ?? 'No next chord to land on.')}</p>
    <p>{toGlyphs(statesSentence(reading))}</p>
  </div>
)

/** The chord in view: its job, its place, what is inside, and the overlay's figures. */
export const SpotColumn = ({ desk, current }: { readonly desk: Desk; readonly current: StripSpot }) => {
  const { chart, sounding } = desk
  const { spot, next, reading } = current
  const length = chart ? beatsWords(beatsOf(spot, chart.metre)) : ''
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
      {reading && <Home reading={reading} />}
      {reading && <Figures reading={reading} />}
    </section>
  )
}
