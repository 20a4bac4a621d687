import { useStore } from '@nanostores/react'
import { useEffect, useState } from 'react'
import { pitchClass, plainNote, toGlyphs } from '../../../../core/index.ts'
import { Button } from '../../../parts/Button.tsx'
import { Select } from '../../../parts/Select.tsx'
import { $rows } from '../../../state/kept/rows.ts'
import { FIRST } from '../../../state/page/first.ts'
import { $level, $recording, recordOrStop } from '../../../state/sound/recording.ts'
import { $roundToTake } from '../../../state/sound/round-take.ts'
import { $roundOf, itemsOver, roundOver } from '../../../state/sound/take-fields.ts'
import { playingInFrom, SOURCES, type SourceName, setPlayingIn } from '../../../state/takes/manner.ts'
import type { OpenChart } from '../../../state/tune/open-chart.ts'
import { keyWords } from '../../overlay/key-words.ts'
import { PlayedMark } from '../../overlay/PlayedMark.tsx'
import { useItems } from '../../overlay/use-practice.ts'
import { PlayInDetails } from './PlayInDetails.tsx'
import { PlayKeys } from './PlayKeys.tsx'
import { PlayNeck } from './PlayNeck.tsx'
import styles from './Takes.module.css'

const LABELS: Readonly<Record<SourceName, string>> = {
  keys: 'keys or a neck, here or on the screen',
  midi: 'a MIDI instrument',
  microphone: 'a microphone',
  simulated: 'the simulated player',
}

const clockText = (ms: number): string => {
  const seconds = Math.floor(ms / 1000)
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`
}

/** How long the take is by now. */
const Elapsed = ({ since }: { readonly since: number }) => {
  const [now, setNow] = useState(since)
  useEffect(() => {
    const timer = setInterval(() => setNow(performance.now()), 500)
    return () => clearInterval(timer)
  }, [])
  return <b className={styles.clock}>{clockText(Math.max(0, now - since))}</b>
}

const STEPS = 12
/** How loud the microphone is, in steps, and which note it hears. */
const Meter = () => {
  const level = useStore($level, FIRST)
  if (!level) return null
  const lit = Math.min(STEPS, Math.round(Math.sqrt(level.level) * STEPS * 1.4))
  const heard = level.heard
  const note = heard === null ? '–' : `${toGlyphs(plainNote(pitchClass(heard)).name)}${Math.floor(heard / 12) - 1}`
  return (
    <div className={styles.meter}>
      <meter min={0} max={STEPS} value={lit} aria-label="Level of the microphone" />
      <b>{note}</b>
    </div>
  )
}

/** The chord that sounds and what was to be played over it, then what comes: to be read at arm's length. */
const Now = ({ openChart }: { readonly openChart: OpenChart }) => {
  const { current, spots } = openChart
  const next = current && (spots[current.index + 1] ?? spots[0])
  if (!current) return null
  const laid = current.by === 'home' ? null : current.reading?.overlay.name
  return (
    <div className={styles.now}>
      <b>{toGlyphs(current.spot.chord.symbol)}</b>
      <span>{laid ? toGlyphs(laid) : 'home'}</span>
      {next && (
        <span className={styles.soft}>
          bar {current.spot.bar}, then {toGlyphs(next.spot.chord.symbol)}
          {next.by !== 'home' && next.reading ? `: ${toGlyphs(next.reading.overlay.name)}` : ''}
        </span>
      )}
    </div>
  )
}

/** What one plays from, and the take as it is played. */
export const RecordBar = ({
  openChart,
  chartId,
  sketch,
}: {
  readonly openChart: OpenChart
  readonly chartId: string | null
  readonly sketch: string | null
}) => {
  const recording = useStore($recording, FIRST)
  const settings = useStore($rows.settings, FIRST)
  const how = playingInFrom(settings.playingIn?.row.value)
  const { chart, instrument } = openChart
  const roundOf = useStore($roundOf, FIRST)
  useStore($roundToTake, FIRST)
  const round = roundOver(sketch)
  useItems()
  const items = itemsOver(chartId)
  return (
    <section className={styles.record} aria-label="Record a take">
      <div className={styles.recordRow}>
        <Button
          tone="strong"
          className={styles.recordButton ?? ''}
          onClick={recordOrStop}
          disabled={!chart || recording?.state === 'ending'}
        >
          {recording ? 'Stop and keep' : 'Record'}
        </Button>
        {recording ? (
          <p className={styles.running} role="status">
            {recording.state === 'opening' && 'Opening the instrument …'}
            {recording.state === 'running' && (
              <>
                <Elapsed since={recording.since} /> {recording.device}: {recording.notes}{' '}
                {recording.notes === 1 ? 'note' : 'notes'}
                {recording.isKept ? '' : '. The program is not answering: what you play is held here.'}
              </>
            )}
            {recording.state === 'ending' && 'Keeping it …'}
          </p>
        ) : (
          <>
            <Select
              label="Play it from"
              value={how.source}
              options={SOURCES.map((s) => ({ value: s, label: LABELS[s] }))}
              onPick={(v) => setPlayingIn({ source: SOURCES.find((s) => s === v) ?? 'keys' })}
            />
            {items.length > 0 && (
              <Select
                label="As a round of"
                value={items.some((i) => i.id === roundOf) ? (roundOf ?? '') : ''}
                options={[
                  { value: '', label: 'nothing' },
                  ...items.map((i) => ({ value: i.id, label: toGlyphs(i.name) })),
                ]}
                onPick={(v) => $roundOf.set(v === '' ? null : v)}
              />
            )}
            <p className={styles.soft}>
              {round
                ? `As a round of ${toGlyphs(round.name)} in ${keyWords(round.key, openChart)}. It begins after a bar of count and goes on until you stop.`
                : chart
                  ? `Over ${toGlyphs(chart.title || 'the sketch')}, after a bar of count, until you stop.`
                  : 'Open a chart first: a take is played over one.'}
            </p>
          </>
        )}
        <Meter />
      </div>
      <div hidden={recording !== null}>
        <PlayInDetails how={how} />
      </div>
      {(recording || how.source === 'keys') && (
        <div className={styles.playRow}>
          {recording && <Now openChart={openChart} />}
          {how.source === 'keys' && how.surface === 'keys' && (
            <PlayKeys low={how.low} writtenUp={instrument.written.semitones} />
          )}
          {how.source === 'keys' && how.surface === 'neck' && <PlayNeck tuning={openChart.settings.tuning} />}
          <PlayedMark />
        </div>
      )}
    </section>
  )
}
