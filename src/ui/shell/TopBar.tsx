import { Undo2 } from 'lucide-react'
import { memo, useEffect } from 'react'
import { keyName, metreName, toGlyphs } from '../../core/index.ts'
import { Button } from '../parts/Button.tsx'
import { Select } from '../parts/Select.tsx'
import { AT_START, go } from '../state/address/address.ts'
import type { Kept } from '../state/kept/kept.ts'
import { bootIn, type Handed, startSession, useSession } from '../state/shell/session.ts'
import { undoLast } from '../state/shell/undoing.ts'
import { closeSketch } from '../state/tune/asking.ts'
import { $openChart } from '../state/tune/open-chart.ts'
import { AskBar } from './AskBar.tsx'
import { listenForFiles } from './bring-in.ts'
import { InstrumentBar } from './InstrumentBar.tsx'
import { listenForKeys } from './listen.ts'
import { useLive } from './live.ts'
import styles from './TopBar.module.css'

const UNDO = <Undo2 size={22} aria-hidden="true" />

const Brand = memo(() => (
  <span className={styles.brand}>
    <span>Crossfade</span>
    <svg viewBox="0 0 30 18" className={styles.sign} aria-hidden="true">
      <path className={styles.inward} d="M1,17 L15,2" />
      <path className={styles.outward} d="M15,2 L29,17" />
    </svg>
  </span>
))

/** The first charts by title, and the open one where it is not among them. */
const chartOptions = ({ chart, charts }: Kept) => {
  const named = (c: { readonly id: string; readonly title: string }) => ({ value: c.id, label: c.title })
  const all = charts.map(named)
  if (!chart) return [{ value: '', label: 'Choose a chart' }, ...all]
  return charts.some((c) => c.id === chart.id) ? all : [named(chart), ...all]
}

const ChartChoice = memo(({ kept }: { readonly kept: Kept }) => (
  <Select
    label="Chart"
    labelHidden
    value={kept.chart?.id ?? ''}
    options={chartOptions(kept)}
    onPick={(id) => id && go({ chart: id, sketch: null, ...AT_START })}
  />
))

/** Brand, open chart, pitch, ask bar, undo; and the page's keys and look, which belong to no single view. */
export const TopBar = ({ boot: given }: { readonly boot: Handed }) => {
  const boot = bootIn(given)
  startSession(boot)
  const { address, kept, openChart } = useSession(boot)
  const { look } = openChart.settings
  useEffect(() => listenForKeys(() => $openChart.get()?.settings.keys !== 'off'), [])
  useEffect(listenForFiles, [])
  useLive()
  useEffect(() => {
    if (look === 'system') delete document.documentElement.dataset.look
    else document.documentElement.dataset.look = look
  }, [look])
  const { chart } = openChart
  if (address.view === 'stand' || address.view === 'player') return null
  return (
    <>
      <header className={styles.bar}>
        <Brand />
        <div className={styles.chart}>
          {openChart.isSketch ? (
            <>
              <strong className={styles.title}>Sketch</strong>
              <Button tone="quiet" className={styles.back ?? ''} onClick={closeSketch} title="Esc">
                {kept.chart ? `back to ${kept.chart.title}` : 'close'}
              </Button>
            </>
          ) : (
            kept.charts.length > 0 && <ChartChoice kept={kept} />
          )}
          {chart && (
            <span className={styles.facts}>
              {chart.key ? `${toGlyphs(keyName(chart.key))} · ` : ''}
              {metreName(openChart.current?.spot.metre ?? chart.metre)} · {chart.tempo}
            </span>
          )}
        </div>
        {openChart.inHand !== null && (
          <Button
            tone="quiet"
            className={styles.inHand ?? ''}
            onClick={() => go({ view: 'route', panel: 'kept', pick: null })}
            title="the route in hand: swap it or put it away"
          >
            in hand: {toGlyphs(openChart.inHand)}
          </Button>
        )}
        <span className={styles.badge}>{openChart.instrument.badge}</span>
        <AskBar openChart={openChart} />
        <Button
          tone="quiet"
          onClick={() => void undoLast()}
          title="Ctrl Z"
          aria-label="Undo"
          className={styles.undo ?? ''}
        >
          {UNDO}
        </Button>
      </header>
      {openChart.settings.instrument === null && <InstrumentBar />}
    </>
  )
}
