import { useStore } from '@nanostores/react'
import { useEffect, useMemo } from 'react'
import {
  BREAK_AFTER,
  GRADES,
  type Grade,
  homeOverlay,
  type Reading,
  readOver,
  soundingAt,
  toGlyphs,
} from '../../../core/index.ts'
import { CueBand } from '../../figures/CueBand.tsx'
import { Button } from '../../parts/Button.tsx'
import { go } from '../../state/address/address.ts'
import { $rows } from '../../state/kept/rows.ts'
import { FIRST } from '../../state/page/first.ts'
import { $session } from '../../state/practice/session.ts'
import { gradeRound } from '../../state/sound/grading.ts'
import { mannerFrom } from '../../state/sound/practice-manner.ts'
import { leaveStage, moveKey, openStage, playOrStopRounds } from '../../state/sound/practising.ts'
import { takeRound } from '../../state/sound/round-take.ts'
import { goOnToNextBlock } from '../../state/sound/sessions.ts'
import {
  $graded,
  $onStage,
  $practiceTick,
  type OnStage,
  refreshStage,
  type ShownRound,
} from '../../state/sound/stage.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { keyWords } from '../overlay/key-words.ts'
import { MannerButtons } from '../overlay/MannerButtons.tsx'
import { TurnTaking } from '../overlay/TurnTaking.tsx'
import { useCards } from '../overlay/use-practice.ts'
import type { ViewProps } from '../view.ts'
import { CueNow } from './CueNow.tsx'
import { LineNow } from './LineNow.tsx'
import styles from './PlayerView.module.css'
import { SaveRounds } from './SaveRounds.tsx'

const VARIANTS = { whole: '', turns: 'by turns', free: 'freely' } as const
/** What is done in a round, in words. */
const roundWords = ({ round }: ShownRound, of: OnStage): string => {
  const { variant, heard } = round
  const what =
    variant.kind === 'only' ? `only ${toGlyphs(of.item.of.sounds?.[variant.sound] ?? '')}` : VARIANTS[variant.kind]
  const how = heard ? 'listen' : variant.kind === 'free' ? 'play' : 'play it'
  return what === '' ? how : `${how}, ${what}`
}

/** What lies over the chord that sounds, read anew only when the chord changes. */
const useReading = (shown: ShownRound | null, tick: number | null, openChart: OpenChart): Reading | null => {
  const { timeline, from } = shown
    ? { timeline: shown.stage.tune.timeline, from: shown.stage.span.from }
    : { timeline: null, from: 0 }
  const sounding = timeline && soundingAt(timeline, Math.max(from, tick ?? from))
  const at = sounding?.index ?? -1
  const { weights } = openChart.settings
  // biome-ignore lint/correctness/useExhaustiveDependencies: the sounding is the one of that index
  return useMemo(() => {
    if (!shown || !sounding?.place) return null
    const laid = shown.stage.laid.find((l) => l.from <= sounding.from && sounding.from < l.to)?.overlay
    return readOver(laid ?? homeOverlay(sounding.place.home.first), sounding.place, weights)
  }, [shown?.stage, at, weights])
}

/** What the round was graded, as it stands in the log now. */
const useGrade = (number: number): Grade | null => {
  const id = useStore($graded, FIRST)[number]?.id
  const log = useStore($rows.log, FIRST)
  return (id !== undefined && log[id]?.row.grade) || null
}

const Grades = ({ of, shown }: { readonly of: OnStage; readonly shown: ShownRound }) => {
  const now = useGrade(shown.number)
  return (
    <fieldset className={styles.grades} aria-label="How it went">
      {GRADES.map((grade) => (
        <Button
          key={grade}
          pressed={now === grade}
          title={{ again: '← or pedal back', hard: '↓', clean: '→ or pedal on', easy: '↑' }[grade]}
          disabled={of.since === null && shown.number === 0 && now === null}
          onClick={() => gradeRound(grade)}
        >
          {grade}
        </Button>
      ))}
    </fieldset>
  )
}

const Next = ({ of, openChart }: { readonly of: OnStage; readonly openChart: OpenChart }) => {
  const { next, shown } = of
  if (!next || !shown) return null
  const key = keyWords(next.round.key, openChart)
  const same = next.round.key === shown.round.key
  return (
    <p className={styles.next}>
      then {same ? '' : 'in '}
      <strong>{same ? roundWords(next, of) : key}</strong>
      {!same && <span> at {next.tempo}</span>}
    </p>
  )
}

const Missing = ({ title, text }: { readonly title: string; readonly text: string }) => (
  <div className={styles.empty}>
    <h1>{title}</h1>
    <p>{text}</p>
    <Button onClick={() => go({ view: 'practice' })}>To Practice</Button>
  </div>
)

const pedalWords = (of: OnStage): string =>
  of.since === null ? 'pedal on: start' : 'pedal on: clean · back: again · twice: stop'

const MINUTE_MS = 60_000

/** Whether the block has had its minutes, or it is time for a break; null while neither is. */
const timeWords = ({ since }: OnStage, minutes: number | null): string | null => {
  const played = since === null ? 0 : (performance.now() - since) / MINUTE_MS
  if (minutes !== null && played >= minutes) return 'The minutes of this block are up: Enter for the next.'
  return played >= BREAK_AFTER ? 'Twenty minutes: put it down for two.' : null
}

/** The item on the player, to be read from two metres with both hands on an instrument. */
const PlayerView = ({ address, kept, openChart }: ViewProps) => {
  const of = useStore($onStage)
  const tick = useStore($practiceTick)
  const session = useStore($session, FIRST)
  const { item, inKey } = address
  useEffect(() => {
    if (item !== null) void openStage(item, inKey)
    return leaveStage
  }, [item, inKey])
  // A grade moves the ladder on: its cards are asked for anew.
  const cards = useCards()
  const manner = mannerFrom(kept.settings.find((s) => s.name === 'practice')?.value)
  // biome-ignore lint/correctness/useExhaustiveDependencies: at rest the round in view is as it would be played now
  useEffect(refreshStage, [cards, manner.hearFirst, manner.breathe])
  const shown = of?.shown ?? null
  const reading = useReading(shown, tick, openChart)
  if (item === null) {
    if (!session)
      return <Missing title="Nothing on the player" text="Choose an item in Practice, or press p on anything." />
    return (
      <div className={styles.empty}>
        <h1>{session.blocks[session.at]?.kind === 'break' ? 'A break' : 'One chorus as you like'}</h1>
        <p>{session.blocks[session.at]?.why}</p>
        <Button tone="strong" onClick={goOnToNextBlock}>
          Go on
        </Button>
      </div>
    )
  }
  if (of === null || of.state === 'loading')
    return (
      <p className={styles.empty} role="status">
        One moment …
      </p>
    )
  if (of.state === 'missing' || !shown) return <Missing title={of.item.name} text={of.why} />
  const { round, stage, tempo } = shown
  return (
    <div className={styles.player}>
      <section className={styles.facts} aria-label="Round" aria-live="polite">
        <p className={styles.key}>
          in <strong>{keyWords(round.key, openChart)}</strong> <span>{tempo}</span>
        </p>
        <h1 className={styles.chord}>{reading ? toGlyphs(reading.place.chord.symbol) : 'N.C.'}</h1>
        <p className={styles.overlay}>{reading ? toGlyphs(reading.overlay.name) : ''}</p>
        <p className={styles.round}>
          <strong>{roundWords(shown, of)}</strong> {round.inKey} of {round.ofKey}
        </p>
        <Next of={of} openChart={openChart} />
      </section>
      <div className={styles.picture}>
        {stage.line && <LineNow stage={stage} tick={tick} />}
        {!stage.line && reading && <TurnTaking figure={address.figure} reading={reading} openChart={openChart} brief />}
      </div>
      <CueNow stage={stage} tick={tick} />
      <div className={styles.band}>
        <CueBand cues={stage.cues} from={stage.span.from} to={stage.span.to} tick={tick} />
      </div>
      <div className={styles.tools}>
        <Button tone="strong" className={styles.play ?? ''} title="Space" onClick={playOrStopRounds}>
          {of.since === null ? 'Play' : 'Stop'}
        </Button>
        <Grades of={of} shown={shown} />
        <Button className={styles.railed ?? ''} title=", and ." onClick={() => moveKey(1)}>
          Next key
        </Button>
        <span className={styles.manner}>
          <MannerButtons manner={manner} />
          <SaveRounds name={of.item.name} />
          <Button title="Play this round in, and have it read" onClick={takeRound}>
            Record a take
          </Button>
        </span>
        {session && (
          <Button title="Enter" onClick={goOnToNextBlock}>
            Next block
          </Button>
        )}
        <Button tone="quiet" className={styles.railed ?? ''} title="Esc" onClick={() => go({ view: 'practice' })}>
          Back to Practice
        </Button>
        <span className={styles.pedal} role="status">
          {timeWords(of, session?.blocks[session.at]?.minutes ?? null) ?? pedalWords(of)}
        </span>
        <span className={styles.name}>{of.item.name}</span>
      </div>
    </div>
  )
}

export default PlayerView
