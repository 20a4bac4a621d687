import { useStore } from '@nanostores/react'
import { ChevronLeft, ChevronRight, Play, Square } from 'lucide-react'
import { type MouseEvent, useState } from 'react'
import { Button } from '../parts/Button.tsx'
import { addressOf, go } from '../state/address/address.ts'
import { VIEWS, type ViewId } from '../state/address/views.ts'
import { openPrinting, toggleBand, toggleLegend } from '../state/page/dialogs.ts'
import { FIRST } from '../state/page/first.ts'
import { moveKeyHere, playHere } from '../state/shell/hands.ts'
import { bootIn, type Handed, startSession, useSession } from '../state/shell/session.ts'
import { $hearing } from '../state/sound/hearing.ts'
import { $playing } from '../state/sound/playing.ts'
import { $onStage } from '../state/sound/stage.ts'
import { moveChord } from '../state/tune/moving.ts'
import { BandPanel } from './BandPanel.tsx'
import { Elsewhere } from './Elsewhere.tsx'
import styles from './FootRail.module.css'
import { Legend } from './Legend.tsx'
import { useLive } from './live.ts'
import { Notices } from './Notices.tsx'
import { PlayControls } from './PlayControls.tsx'
import { PrintDialog } from './PrintDialog.tsx'
import { toggleStand } from './shell-actions.ts'

const SIGNS = {
  before: <ChevronLeft size={26} aria-hidden="true" />,
  next: <ChevronRight size={26} aria-hidden="true" />,
  stop: <Square size={26} fill="currentColor" aria-hidden="true" />,
  play: <Play size={28} fill="currentColor" aria-hidden="true" />,
} as const

const pedalWords = (view: ViewId, hasChords: boolean, playing: boolean): string => {
  if (view === 'player') return 'pedal: clean, again; twice: stop'
  if (!hasChords) return 'pedal: nothing to move through'
  return playing ? 'pedal: next loop, previous loop' : 'pedal: next chord, twice: play'
}

/** Views, sound, and what the pedal does now. */
export const FootRail = ({ boot: given }: { readonly boot: Handed }) => {
  const boot = bootIn(given)
  startSession(boot)
  useLive()
  const { address, kept, openChart } = useSession(boot)
  const hearing = useStore($hearing)
  const playing = useStore($playing) !== null
  const practising = useStore($onStage, FIRST)?.since != null
  const sounds = hearing || playing || practising
  const [unfolded, setUnfolded] = useState(false)
  const follow = (event: MouseEvent, view: ViewId) => {
    if (event.ctrlKey || event.metaKey || event.shiftKey) return
    event.preventDefault()
    setUnfolded(false)
    go({ view })
  }
  const hasChords = openChart.spots.length > 0
  const onPlayer = address.view === 'player'
  const then = (act: () => void) => {
    setUnfolded(false)
    act()
  }
  return (
    <>
      <Notices address={address} />
      <BandPanel address={address} kept={kept} openChart={openChart} />
      <Elsewhere kept={kept} />
      <footer className={styles.rail}>
        <nav aria-label="Views" className={styles.views}>
          <Button className={styles.toggle ?? ''} aria-expanded={unfolded} onClick={() => setUnfolded(!unfolded)}>
            {VIEWS.find((v) => v.id === address.view)?.label} ▴
          </Button>
          <div className={`${styles.list} ${unfolded ? '' : styles.folded}`}>
            {VIEWS.filter((v) => v.letter !== null).map((v) => (
              <a
                key={v.id}
                href={addressOf({ ...address, view: v.id })}
                aria-current={v.id === address.view ? 'page' : undefined}
                title={`g ${v.letter}`}
                onClick={(e) => follow(e, v.id)}
              >
                {v.label}
              </a>
            ))}
            {unfolded && (
              <>
                <Button tone="quiet" onClick={() => then(toggleBand)}>
                  Band and tempo
                </Button>
                <Button tone="quiet" onClick={() => then(toggleLegend)}>
                  Shapes and keys
                </Button>
                <Button tone="quiet" onClick={() => then(openPrinting)}>
                  Print
                </Button>
              </>
            )}
          </div>
        </nav>
        <div className={styles.transport}>
          <Button
            className={styles.step ?? ''}
            aria-label={onPlayer ? 'Key before' : 'Chord before'}
            disabled={!hasChords && !onPlayer}
            onClick={() => moveKeyHere(-1) || moveChord(-1)}
          >
            {SIGNS.before}
          </Button>
          <Button
            tone="quiet"
            className={styles.play ?? ''}
            aria-label={sounds ? 'Stop' : 'Play'}
            title="Space"
            disabled={openChart.chart === null && !onPlayer && address.view !== 'practice'}
            onClick={playHere}
          >
            {sounds ? SIGNS.stop : SIGNS.play}
          </Button>
          <Button
            className={styles.step ?? ''}
            aria-label={onPlayer ? 'Next key' : 'Next chord'}
            disabled={!hasChords && !onPlayer}
            onClick={() => moveKeyHere(1) || moveChord(1)}
          >
            {SIGNS.next}
          </Button>
          <Button
            className={styles.stand ?? ''}
            pressed={address.view === 'stand'}
            title="s: to be read from afar"
            onClick={toggleStand}
          >
            Stand
          </Button>
          <PlayControls address={address} openChart={openChart} />
        </div>
        <div className={styles.help}>
          <span>{pedalWords(address.view, hasChords, playing)}</span>
          <Button tone="quiet" aria-label="? shapes and keys" onClick={toggleLegend}>
            <kbd className={styles.kbd}>?</kbd> <b>shapes and keys</b>
          </Button>
        </div>
      </footer>
      <Legend />
      <PrintDialog address={address} kept={kept} openChart={openChart} />
    </>
  )
}
