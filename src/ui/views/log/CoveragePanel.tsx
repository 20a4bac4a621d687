import { useStore } from '@nanostores/react'
import { DAY_MS, PRACTICE_FAMILIES, type PracticeFamily } from '../../../core/index.ts'
import { $coverage, askCoverage, type CoveredCell } from '../../state/practice/figures.ts'
import { fillHole } from '../../state/shell/holes.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { dayWords } from '../overlay/day-words.ts'
import { keyWords } from '../overlay/key-words.ts'
import { useItems, usePractised } from '../overlay/use-practice.ts'
import type { ViewProps } from '../view.ts'
import styles from './LogView.module.css'
import { FAMILY_WORDS } from './words.ts'

/** Longer ago than this a cell is told to be stale, by its broken edge. */
const STALE_DAYS = 14
const HEIGHTS = 5

const Cell = ({ cell, openChart }: { readonly cell: CoveredCell; readonly openChart: OpenChart }) => {
  const { family, key, last, tempo, clean } = cell
  const name = `${FAMILY_WORDS[family]} in ${keyWords(key, openChart)}`
  const days = last === null ? null : (Date.now() - Date.parse(last)) / DAY_MS
  const share = clean === null ? '' : `, ${Math.round(clean * 100)} of 100 rounds clean`
  const words =
    last === null
      ? `${name}: never; practise it today`
      : `${name}: ${dayWords(last)}${share}, tempo ${tempo ?? 'not clean yet'}`
  return (
    <td>
      <button
        type="button"
        className={styles.cell}
        data-up={clean === null ? 0 : 1 + Math.round(clean * (HEIGHTS - 1))}
        data-stale={days !== null && days > STALE_DAYS ? 'yes' : undefined}
        aria-label={words}
        title={words}
        onClick={() => void fillHole(family, key)}
      >
        {last === null ? '·' : (tempo ?? '–')}
      </button>
    </td>
  )
}

/** Families by keys as small heights: how high, how clean; the number is the fastest clean tempo; a point is a hole. */
export const CoveragePanel = ({ openChart }: ViewProps) => {
  const { value, state } = useStore($coverage)
  useItems()
  usePractised(askCoverage)
  if (!value) return state === 'loading' ? <p role="status">Working out the figures …</p> : null
  const keys = [...new Set(value.cells.map((c) => c.key))]
  const rowOf = (family: PracticeFamily) => value.cells.filter((c) => c.family === family)
  return (
    <div className={styles.scroll}>
      <table className={styles.coverage}>
        <caption>
          The fastest clean tempo of each family in each key. The higher the step, the more rounds were clean; a broken
          edge: over two weeks ago; a point: never. Press one to practise it today.
        </caption>
        <thead>
          <tr>
            <td />
            {keys.map((key) => (
              <th key={key} scope="col">
                {keyWords(key, openChart)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {PRACTICE_FAMILIES.map((family) => (
            <tr key={family}>
              <th scope="row">{FAMILY_WORDS[family]}</th>
              {rowOf(family).map((cell) => (
                <Cell key={cell.key} cell={cell} openChart={openChart} />
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
