import { useEffect, useRef, useState } from 'react'
import {
  beatsOf,
  dominantsBehind,
  homeName,
  jobName,
  type Key,
  keyName,
  PLAIN_JOBS,
  POINTING_JOBS,
  readJob,
  reverse,
  toAscii,
  toGlyphs,
  transposeJob,
} from '../../../core/index.ts'
import type { StripSpot } from '../../figures/strip-layout.ts'
import { beatText } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { correct } from '../../state/charts/editing.ts'
import { copyTable } from '../../state/page/copying.ts'
import { goToSpot } from '../../state/tune/moving.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './Harmony.module.css'

const keyWord = (key: Key | null): string => (key ? toGlyphs(keyName(key)) : '')
const jobWord = (s: StripSpot): string => (s.job ? toGlyphs(jobName(s.job)) : '')

/** Where chains begin, by spot: what they are, for a bracket in front of the rows. */
const chainRows = (openChart: OpenChart): ReadonlyMap<number, string> => {
  const inside = new Map<number, string>()
  for (const c of openChart.chains) {
    const [from, to] = [c.from.spots[0]?.index ?? 0, c.to.spots[0]?.index ?? 0]
    for (let i = from; i <= to; i++)
      if (!inside.has(i)) inside.set(i, i === from ? 'first' : i === to ? 'last' : 'inner')
  }
  return inside
}

const chainWords = (openChart: OpenChart, spot: number): string | null => {
  const chain = openChart.chains.find((c) => c.from.spots[0]?.index === spot)
  if (!chain) return null
  return `${chain.kind.replaceAll('-', '–')}${chain.target ? ` to ${toGlyphs(chain.target)}` : ''}`
}

const textOf = (openChart: OpenChart) => ({
  title: `${openChart.title}: harmony`,
  heads: ['Bar', 'Beat', 'Chord', 'Key', 'Degree', 'Job', 'Resolves', 'Why'],
  rows: openChart.spots.map((s) => [
    String(s.spot.bar),
    beatText(s.beat),
    s.spot.chord.symbol,
    s.key ? keyName(s.key) : '',
    s.degree ?? '',
    s.job ? jobName(s.job) : '',
    s.resolves ? 'yes' : '',
    s.reason,
  ]),
})

/** The player's own word on one chord's job. */
const Correction = ({ spot, openChart }: { readonly spot: StripSpot; readonly openChart: OpenChart }) => {
  const { job } = spot
  const [kind, setKind] = useState<string>(job?.kind ?? 'tonic')
  const [of, setOf] = useState(job && 'of' in job ? job.of : '')
  const [wrong, setWrong] = useState(false)
  const points = POINTING_JOBS.some((k) => k === kind)
  const say = () => {
    const read = readJob(points ? `${kind} ${kind === 'passing diminished' ? 'to' : 'of'} ${toAscii(of.trim())}` : kind)
    setWrong(read === null)
    if (read)
      correct(spot.spot.bar, spot.beat, { job: jobName(transposeJob(read, reverse(openChart.instrument.written))) })
  }
  return (
    <form
      className={styles.correction}
      aria-label="Your word on this chord"
      onSubmit={(e) => {
        e.preventDefault()
        say()
      }}
    >
      <Select
        label="It is rather"
        value={kind}
        options={[...PLAIN_JOBS, ...POINTING_JOBS].map((k) => ({ value: k, label: k }))}
        onPick={setKind}
      />
      {points && (
        <label className={styles.target}>
          {kind === 'passing diminished' ? 'to' : 'of'}
          <input value={of} onChange={(e) => setOf(e.target.value)} aria-invalid={wrong} />
        </label>
      )}
      <Button onClick={say}>Say so</Button>
      {spot.yours && (
        <Button tone="quiet" onClick={() => correct(spot.spot.bar, spot.beat, { job: '' })}>
          Take it back
        </Button>
      )}
      {wrong && <p role="alert">Name a chord by its root, with m if it is minor: A♭ or Dm.</p>}
    </form>
  )
}

/** Cuts the chord in view in two at its middle beat, so that each half can carry its own overlay; or joins it again. */
const Split = ({ spot, openChart }: { readonly spot: StripSpot; readonly openChart: OpenChart }) => {
  const { chart } = openChart
  const beats = chart ? beatsOf(spot.spot) : 0
  const cut = openChart.cuts.find((c) => c.bar === spot.spot.bar && (c.beat === spot.beat || c.split === spot.beat))
  if (cut) return <Button onClick={() => correct(cut.bar, cut.beat, { split: 0 })}>Join its halves again</Button>
  if (beats < 2) return null
  return (
    <Button onClick={() => correct(spot.spot.bar, spot.beat, { split: spot.beat + Math.floor(beats / 2) })}>
      Split it in two
    </Button>
  )
}

const Detail = ({ spot, openChart }: { readonly spot: StripSpot; readonly openChart: OpenChart }) => {
  const { chord } = spot.spot
  const behind = chord.kind === 'chord' ? dominantsBehind(chord) : null
  const home = spot.reading?.place.home
  return (
    <section className={styles.detail} aria-label="The chord in view">
      <div className={styles.head}>
        <h2>
          {toGlyphs(chord.symbol)} <span className={styles.soft}>{jobWord(spot)}</span>
          {spot.yours && <span className={styles.yours}>yours</span>}
        </h2>
        <Split spot={spot} openChart={openChart} />
      </div>
      <p>{toGlyphs(spot.reason)}</p>
      {behind && <p>It stands for {behind.map((b) => toGlyphs(`${b.dominant.root.name}7`)).join(', ')}.</p>}
      {home && (
        <p className={styles.soft}>
          Home: {toGlyphs(homeName(home.first))}, because {home.because}.
        </p>
      )}
      <details key={`${spot.index} ${jobWord(spot)}`} open={spot.yours}>
        <summary>Say otherwise</summary>
        <Correction spot={spot} openChart={openChart} />
      </details>
    </section>
  )
}

/** Where the list's own heading covers its rows. */
const HEAD_PX = 30

/** The harmony in words, chord by chord: key, job, way on; chains are bracketed, the player's own word is marked. */
export const Harmony = ({ openChart }: { readonly openChart: OpenChart }) => {
  const chains = chainRows(openChart)
  const now = openChart.current
  const row = useRef<HTMLTableRowElement>(null)
  const box = useRef<HTMLDivElement>(null)
  const index = now?.index
  // biome-ignore lint/correctness/useExhaustiveDependencies: the row in view moves with the index
  useEffect(() => {
    const [list, now] = [box.current, row.current]
    if (!list || !now) return
    const [above, below] = [now.offsetTop - HEAD_PX, now.offsetTop + now.offsetHeight]
    if (above < list.scrollTop) list.scrollTop = above
    else if (below > list.scrollTop + list.clientHeight) list.scrollTop = below - list.clientHeight
  }, [index])
  return (
    <>
      <div className={styles.head}>
        <h2>{openChart.key ? `In ${keyWord(openChart.key)}` : 'Harmony'}</h2>
        <Button onClick={() => void copyTable(textOf(openChart))}>Copy as text</Button>
      </div>
      <div ref={box} className={styles.scroll}>
        <table className={styles.table}>
          <thead>
            <tr>
              <th scope="col">Bar</th>
              <th scope="col">Chord</th>
              <th scope="col">Job</th>
              <th scope="col">Key</th>
            </tr>
          </thead>
          <tbody>
            {openChart.spots.map((s) => {
              const before = openChart.spots[s.index - 1]
              const chain = chainWords(openChart, s.index)
              return (
                <tr key={s.index} ref={s.index === index ? row : null} className={s.index === index ? styles.now : ''}>
                  <td className={styles[`chain-${chains.get(s.index) ?? 'none'}`]}>
                    {s.spot.bar !== before?.spot.bar ? s.spot.bar : ''}
                  </td>
                  <td>
                    <button type="button" aria-current={s.index === index} onClick={() => goToSpot(s)}>
                      {toGlyphs(s.spot.chord.symbol)}
                    </button>
                  </td>
                  <td>
                    {jobWord(s)}
                    {s.resolves && <span aria-hidden="true"> →</span>}
                    {s.yours && <span className={styles.yours}>yours</span>}
                    {chain && <span className={styles.chain}>{chain}</span>}
                  </td>
                  <td className={styles.soft}>
                    {keyWord(s.key) !== keyWord(before?.key ?? null) ? keyWord(s.key) : ''}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </div>
      {now && <Detail spot={now} openChart={openChart} />}
    </>
  )
}
