import { useStore } from '@nanostores/react'
import { useEffect, useState } from 'react'
import { Button } from '../../parts/Button.tsx'
import { SettlingSlider } from '../../parts/Slider.tsx'
import { choose, go } from '../../state/address/address.ts'
import { MINUTES } from '../../state/address/parts/practice.ts'
import { standingOf } from '../../state/kept/rows.ts'
import { FIRST } from '../../state/page/first.ts'
import { $practised, $today, askToday } from '../../state/practice/figures.ts'
import { $items, $itemsFetched, addReadyItems, READY_ITEMS } from '../../state/practice/items.ts'
import {
  $arranged,
  $session,
  arrangedOf,
  endSession,
  keepRoutine,
  routineBlocks,
  routinesFrom,
  type SessionBlock,
} from '../../state/practice/session.ts'
import { mannerFrom } from '../../state/sound/practice-manner.ts'
import { openBlock, startSession } from '../../state/sound/sessions.ts'
import { keyWords } from '../overlay/key-words.ts'
import { MannerButtons } from '../overlay/MannerButtons.tsx'
import type { ViewProps } from '../view.ts'
import { BlockList } from './BlockList.tsx'
import styles from './PracticeView.module.css'

const NoItems = () => (
  <div className={styles.empty}>
    <h2>Nothing to practise yet</h2>
    <p>
      Press <kbd>p</kbd> on any overlay, pair, route or line: it becomes an item in all keys. Or begin with a set in the
      order it is usually taught: {READY_ITEMS.map((i) => i.name.toLowerCase()).join(', ')}.
    </p>
    <Button tone="strong" onClick={addReadyItems}>
      Add these seven
    </Button>
    <Button onClick={() => go({ view: 'desk' })}>To the Desk</Button>
  </div>
)

const Routines = ({ query, blocks }: { readonly query: string; readonly blocks: readonly SessionBlock[] }) => {
  const [name, setName] = useState('')
  const items = useStore($items)
  const all = routinesFrom(standingOf('settings', 'routines')?.row.value)
  return (
    <details className={styles.fold}>
      <summary>Routines</summary>
      <form
        className={styles.row}
        onSubmit={(e) => {
          e.preventDefault()
          if (name.trim() !== '') keepRoutine(all, name.trim(), blocks)
          setName('')
        }}
      >
        <label>
          This list as a routine{' '}
          <input value={name} maxLength={60} onChange={(e) => setName(e.target.value)} placeholder="its name" />
        </label>
        <Button type="submit">Keep</Button>
      </form>
      <ul className={styles.plain}>
        {all.map((r) => (
          <li key={r.name}>
            <Button onClick={() => $arranged.set({ of: query, blocks: routineBlocks(r, items) })}>{r.name}</Button>
          </li>
        ))}
      </ul>
    </details>
  )
}

/** What there is to do in so many minutes, in an order that can be changed, and why. */
export const TodayPanel = ({ address, kept, openChart }: ViewProps) => {
  const today = useStore($today)
  const practised = useStore($practised)
  const arranged = useStore($arranged, FIRST)
  const session = useStore($session, FIRST)
  const items = useStore($items)
  const fetched = useStore($itemsFetched)
  const { minutes } = address
  // biome-ignore lint/correctness/useExhaustiveDependencies: with what was kept anew the list is another
  useEffect(() => void askToday(minutes), [minutes, practised])
  if (fetched === 'ready' && items.length === 0) return <NoItems />
  const blocks = arrangedOf(today.query, today.value?.blocks ?? [], arranged)
  const whole = blocks.reduce((sum, b) => sum + b.minutes, 0)
  return (
    <div className={styles.today}>
      <div className={styles.row}>
        <div className={styles.minutes}>
          <SettlingSlider
            label="I have so many minutes"
            least={MINUTES.least}
            most={MINUTES.most}
            step={5}
            value={minutes}
            onSettle={(to) => choose('the minutes', { minutes: to })}
          />
        </div>
        {session ? (
          <>
            <Button tone="strong" title="Space" onClick={openBlock}>
              Go on: {session.blocks[session.at]?.name ?? session.blocks[session.at]?.kind}
            </Button>
            <Button onClick={endSession}>End this session</Button>
          </>
        ) : (
          <Button tone="strong" title="Space" disabled={blocks.length === 0} onClick={startSession}>
            Start {whole} minutes
          </Button>
        )}
        <MannerButtons manner={mannerFrom(kept.settings.find((s) => s.name === 'practice')?.value)} />
      </div>
      {today.state === 'failed' && (
        <p role="alert">
          The list could not be worked out: {today.why}{' '}
          <Button onClick={() => void askToday(minutes)}>Try again</Button>
        </p>
      )}
      {today.value === null && today.state === 'loading' && <p role="status">Working out the list …</p>}
      <BlockList query={today.query} blocks={blocks} openChart={openChart} inHand={session ? session.at : null} />
      {today.value && today.value.left.length > 0 && (
        <details className={styles.fold}>
          <summary>Left out: {today.value.left.length}</summary>
          <ul className={styles.plain}>
            {today.value.left.map((l) => (
              <li key={`${l.itemId} ${l.key}`}>
                {l.name} in {keyWords(l.key, openChart)}: {l.why}
              </li>
            ))}
          </ul>
        </details>
      )}
      <Routines query={today.query} blocks={blocks} />
    </div>
  )
}
