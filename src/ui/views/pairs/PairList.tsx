import { type MapCell, readOver, type Place as Spotted, toGlyphs, type Weights } from '../../../core/index.ts'
import { Multiple } from '../../figures/Multiple.tsx'
import styles from './PairsView.module.css'

interface Props {
  readonly cell: MapCell
  readonly spot: Spotted
  readonly weights: Weights
  readonly laid: number | null
  readonly onLay: (name: string) => void
}

/** The twelve roots of one cell, nearest first, with each triad's degrees apart. */
export const PairList = ({ cell, spot, weights, laid, onLay }: Props) => (
  <ol className={styles.list} aria-label="Pairs">
    {cell.all.map((r) => {
      const overlay = r.overlay()
      const reading = readOver(overlay, spot, weights)
      const [first, second] = (overlay.groups ?? []).map((g) =>
        readOver(g, spot, weights)
          .notes.map((n) => toGlyphs(n.degree))
          .join(' '),
      )
      return (
        <li key={overlay.name}>
          <button
            type="button"
            aria-pressed={r.candidate.set === laid}
            className={r.candidate.set === laid ? styles.rowNow : styles.row}
            onClick={() => onLay(overlay.name)}
          >
            <Multiple reading={reading} />
            <span className={styles.words}>
              <strong>{toGlyphs(overlay.name)}</strong>
              <span className={styles.soft}>
                {first} · {second}
              </span>
            </span>
            <span className={styles.numbers}>
              <strong>{r.measured.fade}</strong>
              <span>{r.measured.landing ?? '–'}</span>
            </span>
          </button>
        </li>
      )
    })}
  </ol>
)
