import type { FigureId } from '../../state/address/parts/desk.ts'
import { toggleFigure } from '../../state/desk/figures.ts'
import styles from './Picture.module.css'

const TABS: readonly { readonly id: FigureId; readonly label: string; readonly key: string | null }[] = [
  { id: 'slope', label: 'Slope', key: '1' },
  { id: 'keyboard', label: 'Keyboard', key: '2' },
  { id: 'fretboard', label: 'Fretboard', key: '3' },
  { id: 'staff', label: 'Staff', key: '4' },
  { id: 'table', label: 'Table', key: null },
  { id: 'why', label: 'Why', key: 'w' },
  { id: 'compare', label: 'Tray', key: null },
  { id: 'elsewhere', label: 'Elsewhere', key: null },
  { id: 'chord', label: 'Chord', key: null },
]

const FEW: readonly FigureId[] = ['slope', 'keyboard', 'fretboard', 'staff', 'table']

interface Props {
  readonly now: FigureId
  readonly inTray: number
  /** Only the pictures of the overlay itself. */
  readonly few?: boolean
}

/** What takes its turn in the picture's place. */
export const FigureTabs = ({ now, inTray, few = false }: Props) => (
  <nav className={styles.tabs} aria-label="Pictures">
    {TABS.filter((t) => !few || FEW.includes(t.id)).map(({ id, label, key }) => (
      <button
        key={id}
        type="button"
        aria-pressed={id === now}
        className={id === now ? styles.tabNow : styles.tab}
        title={key ?? undefined}
        onClick={() => toggleFigure(id)}
      >
        {key && <kbd aria-hidden="true">{key}</kbd>}
        {label}
        {id === 'compare' && inTray > 0 ? ` ${inTray}` : ''}
      </button>
    ))}
  </nav>
)
