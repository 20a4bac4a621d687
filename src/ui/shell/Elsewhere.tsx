import { useStore } from '@nanostores/react'
import { toGlyphs } from '../../core/index.ts'
import { Button } from '../parts/Button.tsx'
import type { Kept } from '../state/kept/kept.ts'
import { FIRST } from '../state/page/first.ts'
import { $elsewhere, $goesAlong, setGoesAlong } from '../state/sound/elsewhere.ts'
import { $playing } from '../state/sound/playing.ts'
import styles from './Elsewhere.module.css'

/** That another device plays, and whether this one goes along. */
export const Elsewhere = ({ kept }: { readonly kept: Kept }) => {
  const place = useStore($elsewhere, FIRST)
  const goesAlong = useStore($goesAlong, FIRST)
  const playsHere = useStore($playing, FIRST) !== null
  if (!place || place.chartId === null || playsHere) return null
  const title = kept.charts.find((c) => c.id === place.chartId)?.title ?? 'A chart'
  return (
    <section className={styles.line} aria-label="Playing elsewhere">
      <span>
        {goesAlong ? 'Going along with' : 'Played elsewhere:'} <strong>{toGlyphs(title)}</strong>
      </span>
      <Button onClick={() => setGoesAlong(!goesAlong)}>{goesAlong ? 'Stay here' : 'Go along'}</Button>
    </section>
  )
}
