import { useStore } from '@nanostores/react'
import { useState } from 'react'
import { Button } from '../../parts/Button.tsx'
import { go } from '../../state/address/address.ts'
import type { LogTab } from '../../state/address/parts/practice.ts'
import { $coverage } from '../../state/practice/figures.ts'
import { TabbedHead } from '../overlay/TabbedHead.tsx'
import type { ViewProps } from '../view.ts'
import { CoursePanel } from './CoursePanel.tsx'
import { CoveragePanel } from './CoveragePanel.tsx'
import { EntriesPanel } from './EntriesPanel.tsx'
import { KeptPanel } from './KeptPanel.tsx'
import styles from './LogView.module.css'
import { MonthSheet } from './MonthSheet.tsx'

const LABELS: Readonly<Record<LogTab, string>> = {
  coverage: 'Coverage',
  course: 'Course',
  entries: 'Entries',
  kept: 'Kept',
}

/** What was practised: where it is thin, how it went on, and every entry. */
const LogView = (props: ViewProps) => {
  const { logged } = props.address
  const [printing, setPrinting] = useState(false)
  const known = useStore($coverage)
  return (
    <div className={styles.log}>
      <TabbedHead title="Log" tabs={LABELS} now={logged} onPick={(tab) => go({ logged: tab })}>
        <span className={styles.files}>
          <a className={styles.file} href="/api/v1/practice/export" download>
            CSV
          </a>
          <Button onClick={() => setPrinting(true)}>Print the month</Button>
        </span>
      </TabbedHead>
      {known.state === 'failed' && <p role="alert">The figures could not be worked out: {known.why}</p>}
      {logged === 'coverage' && <CoveragePanel {...props} />}
      {logged === 'course' && <CoursePanel {...props} />}
      {logged === 'entries' && <EntriesPanel {...props} />}
      {logged === 'kept' && <KeptPanel {...props} />}
      {printing && <MonthSheet openChart={props.openChart} onDone={() => setPrinting(false)} />}
    </div>
  )
}

export default LogView
