import type { ReactNode } from 'react'
import { Button } from '../../parts/Button.tsx'
import styles from './TabbedHead.module.css'

interface Props<T extends string> {
  readonly title: string
  /** Each side of the view with its label. */
  readonly tabs: Readonly<Record<T, string>>
  readonly now: T
  readonly onPick: (tab: T) => void
  readonly children?: ReactNode
}

/** The head of a view that has sides: its name, the sides, and what can be done with all of it. */
export const TabbedHead = <T extends string>({ title, tabs, now, onPick, children }: Props<T>) => (
  <header className={styles.head}>
    <h1>{title}</h1>
    <nav aria-label={title} className={styles.tabs}>
      {(Object.entries(tabs) as [T, string][]).map(([tab, label]) => (
        <Button
          key={tab}
          aria-current={now === tab ? 'page' : undefined}
          pressed={now === tab}
          onClick={() => onPick(tab)}
        >
          {label}
        </Button>
      ))}
    </nav>
    {children}
  </header>
)
