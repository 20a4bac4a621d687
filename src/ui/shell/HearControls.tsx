import { useState } from 'react'
import { Select } from '../parts/Select.tsx'
import { Slider } from '../parts/Slider.tsx'
import type { Desk } from '../stores/desk.ts'
import { keepSetting } from '../stores/kept.ts'
import { HEAR_TEMPO, HEARD_AS } from '../stores/settings.ts'
import styles from './FootRail.module.css'

const NAMES = { up: 'upward', down: 'downward', chord: 'as a chord', triads: 'triad by triad' } as const

/** How an overlay is heard, and at which tempo. */
export const HearControls = ({ desk }: { readonly desk: Desk }) => {
  const { hearAs, hearTempo } = desk.settings
  const [moving, setMoving] = useState<number | null>(null)
  return (
    <div className={styles.hear}>
      <Select
        label="Heard"
        labelHidden
        value={hearAs}
        options={HEARD_AS.map((h) => ({ value: h, label: NAMES[h] }))}
        onPick={(h) => void keepSetting('hearAs', h)}
      />
      <Slider
        label="tempo"
        least={HEAR_TEMPO.least}
        most={HEAR_TEMPO.most}
        value={moving ?? hearTempo}
        onChange={setMoving}
        onSettle={(v) => void keepSetting('hearTempo', v).then(() => setMoving(null))}
      />
    </div>
  )
}
