import { go } from '../../state/address/address.ts'
import type { PracticeTab } from '../../state/address/parts/practice.ts'
import { askCards } from '../../state/practice/figures.ts'
import { TabbedHead } from '../overlay/TabbedHead.tsx'
import { useItems, usePractised } from '../overlay/use-practice.ts'
import type { ViewProps } from '../view.ts'
import { Cautions } from './Cautions.tsx'
import { ItemsPanel } from './ItemsPanel.tsx'
import styles from './PracticeView.module.css'
import { QuizPanel } from './QuizPanel.tsx'
import { TodayPanel } from './TodayPanel.tsx'
import { TakesPanel } from './takes/TakesPanel.tsx'

const LABELS: Readonly<Record<PracticeTab, string>> = { today: 'Today', items: 'Items', quiz: 'Quiz', takes: 'Takes' }

/** Today's list, what there is to practise, and the quiz. */
const PracticeView = (props: ViewProps) => {
  const { practise } = props.address
  useItems()
  usePractised(askCards)
  return (
    <div className={styles.practice}>
      <TabbedHead title="Practice" tabs={LABELS} now={practise} onPick={(tab) => go({ practise: tab })} />
      <Cautions />
      {practise === 'today' && <TodayPanel {...props} />}
      {practise === 'items' && <ItemsPanel {...props} />}
      {practise === 'quiz' && <QuizPanel {...props} />}
      {practise === 'takes' && <TakesPanel {...props} />}
    </div>
  )
}

export default PracticeView
