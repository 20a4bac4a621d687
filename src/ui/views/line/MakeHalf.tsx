import { useStore } from '@nanostores/react'
import { useEffect, useMemo, useState } from 'react'
import {
  compass,
  type LineAsk,
  meetsAfter,
  readFigure,
  speakingOf,
  TICKS_PER_QUARTER,
  toGlyphs,
} from '../../../core/index.ts'
import type { MadeLine, MakeAsk } from '../../../workers/start.ts'
import { DraftBand } from '../../figures/DraftBand.tsx'
import { LineBand } from '../../figures/LineBand.tsx'
import { beatsWords, howMany } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { go } from '../../state/address/address.ts'
import { tablatureOf } from '../../state/line/line-tab.ts'
import { $lineAnalysis } from '../../state/line/lines.ts'
import { $making, keepDraft, type Making, makeAskHere, makeFor, stopMaking } from '../../state/line/making.ts'
import { $marked, $verdict } from '../../state/line/verdict.ts'
import { hearHere } from '../../state/shell/hands.ts'
import { tapNote } from '../../state/sound/line-hearing.ts'
import { $playing, musicTick } from '../../state/sound/playing.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import type { ViewProps } from '../view.ts'
import styles from './Make.module.css'
import { MakeChoosers } from './MakeChoosers.tsx'
import { useLineAnalysis } from './use-line-analysis.ts'

const askFor = (ask: MakeAsk, draft: MadeLine, openChart: OpenChart): LineAsk => ({
  ...{ text: ask.text, overrides: ask.overrides, written: openChart.instrument.written },
  ...{ school: openChart.settings.school, weights: openChart.settings.weights, notes: draft.line },
})

const Draft = ({ draft, index, here }: { draft: MadeLine; index: number; here: boolean }) => (
  <li>
    <button
      type="button"
      aria-current={here}
      className={here ? styles.here : styles.draft}
      onClick={() => go({ draft: index, note: 0 })}
    >
      <span className={styles.rank}>{index + 1}</span>
      <DraftBand notes={draft.line} fades={draft.fades} />
      <span className={styles.told}>
        <strong>
          fade {draft.fade}
          {draft.landing === null ? '' : `, lands ${draft.landing}`}
        </strong>{' '}
        <span title="the sum of what it costs; less is smoother">({draft.total})</span> {toGlyphs(draft.why)}
      </span>
    </button>
  </li>
)

/** After how many beats the groups begin on a beat again. */
const meetsWords = (ask: MakeAsk | null): string => {
  const figure = ask && readFigure(ask.figure)
  if (!ask || !figure?.ok) return ''
  const size = figure.value.places.length
  const beats = meetsAfter(size, ask.value, TICKS_PER_QUARTER)
  return `Groups of ${size} in ${ask.value}: they meet the beat again after ${beatsWords(beats)}.`
}

interface ToldProps {
  readonly draft: MadeLine
  readonly meets: string
  /** What a player of the instrument it is for should know. */
  readonly speaking: readonly string[]
}

/** How a draft joins its materials, and what its groups are. */
const Told = ({ draft, meets, speaking }: ToldProps) => (
  // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys
  <section className={styles.joins} aria-label="Joins and groups" tabIndex={0}>
    <h2>Why it is {draft.total}</h2>
    <p>{toGlyphs(draft.why)} Less is smoother.</p>
    {speaking.map((text) => (
      <p key={text}>{text}</p>
    ))}
    <h2>Joins</h2>
    {draft.joins.length === 0 ? (
      <p>One material throughout: nothing to join.</p>
    ) : (
      <ul>
        {draft.joins.map((text, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the same join may come twice
          <li key={i}>{toGlyphs(text)}</li>
        ))}
      </ul>
    )}
    <h2>Groups</h2>
    <p>{meets}</p>
    <ul>
      {draft.groups.map((g) => (
        <li key={g.from}>
          {g.from === g.to ? `Note ${g.from + 1}` : `Notes ${g.from + 1}–${g.to + 1}`}: {toGlyphs(g.of)}, {g.adds}
        </li>
      ))}
    </ul>
  </section>
)

/** What lasts longer than this can be stopped. */
const LONG_MS = 300

const UnderWay = ({ state, onAgain }: { readonly state: Making['state']; readonly onAgain: () => void }) => {
  const [long, setLong] = useState(false)
  useEffect(() => {
    setLong(false)
    if (state !== 'making') return
    const timer = setTimeout(() => setLong(true), LONG_MS)
    return () => clearTimeout(timer)
  }, [state])
  return (
    <>
      <span role="status">{state === 'making' ? 'Making …' : state === 'stopped' ? 'Stopped.' : ''}</span>
      {state === 'making' && long && <Button onClick={stopMaking}>Stop making</Button>}
      {state === 'stopped' && <Button onClick={onAgain}>Make again</Button>}
    </>
  )
}

/** Make: a line from a figure, a path, a rhythm and an approach, through what is laid. */
export const MakeHalf = ({ address, kept, openChart }: ViewProps) => {
  const making = useStore($making)
  const playing = useStore($playing)
  const ask = useMemo(() => makeAskHere(address, kept, openChart), [address, kept, openChart])
  useEffect(() => {
    if (ask) void makeFor(ask)
  }, [ask])
  const index = Math.min(address.draft, making.drafts.length - 1)
  const draft = making.drafts[index] ?? null
  const lineAsk = useMemo(
    () => (making.ask && draft ? askFor(making.ask, draft, openChart) : null),
    [making.ask, draft, openChart],
  )
  const { lineAnalysis } = useLineAnalysis(lineAsk, 'draft')
  useEffect(() => {
    $lineAnalysis.set(lineAnalysis)
    $verdict.set([])
    $marked.set([])
  }, [lineAnalysis])
  const tab = useMemo(
    () => (lineAnalysis && address.tab ? tablatureOf(lineAnalysis.audit.notes, openChart) : null),
    [lineAnalysis, address.tab, openChart],
  )
  const plays = compass(address.makeFor ?? '')
  const timeline = lineAnalysis?.audit.timeline
  const speaking =
    plays && draft && timeline ? speakingOf(draft.line, plays, timeline.beat, timeline.beat * timeline.beatsInBar) : []
  if (!ask) return <p className={styles.empty}>There is no chord here to make a line over.</p>
  return (
    <div className={styles.half}>
      <MakeChoosers address={address} openChart={openChart} />
      <div className={styles.band}>
        {lineAnalysis && draft && (
          <LineBand
            chart={lineAnalysis.chart}
            keyHere={openChart.key}
            audit={lineAnalysis.audit}
            current={Math.min(address.note, lineAnalysis.audit.notes.length - 1)}
            marked={[]}
            clef={openChart.settings.clef}
            tab={tab}
            zoom={address.zoom}
            low
            music={playing ? musicTick : null}
            onGo={tapNote}
            onStaff={null}
          />
        )}
      </div>
      <section className={styles.drafts} aria-label="Drafts">
        <div className={styles.draftsHead}>
          <h2>{making.state === 'making' && !draft ? 'Drafts' : howMany(making.drafts.length, 'draft')}</h2>
          {draft && (
            <>
              <Button tone="strong" title="Enter" onClick={hearHere}>
                Hear
              </Button>
              <Button title="k: keep it as a line" onClick={keepDraft}>
                Keep
              </Button>
            </>
          )}
          <UnderWay state={making.state} onAgain={() => void makeFor(ask)} />
        </div>
        {(making.state === 'none' || making.state === 'failed') && <p role="alert">{toGlyphs(making.why)}</p>}
        <ol className={styles.list}>
          {making.drafts.map((d, i) => (
            <Draft key={d.line.map((n) => n.pitch).join()} draft={d} index={i} here={i === index} />
          ))}
        </ol>
      </section>
      {draft && <Told draft={draft} meets={meetsWords(making.ask)} speaking={speaking} />}
    </div>
  )
}
