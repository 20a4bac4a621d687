import { Button } from '../../parts/Button.tsx'
import { KINDS } from '../../state/kept/kinds.ts'
import type { KindName } from '../../state/kept/row-types.ts'
import { answerOffer, keepAnew, settleRow } from '../../state/kept/rows.ts'
import type { ServerRow, Standing } from '../../state/kept/standing.ts'
import styles from './RowTrouble.module.css'

const ONLY_HERE = 'only in this tab, for this browser keeps nothing: leave it open.'

/** Whether a row is kept, in words. */
export const standingWords = ({ state, why, held, unread }: Standing<ServerRow>): string => {
  switch (state) {
    case 'kept':
      return 'Kept.'
    case 'waiting':
      return 'Keeping …'
    case 'conflict':
      return 'It was changed elsewhere in the meantime.'
    case 'gone':
      return 'It was removed elsewhere.'
    case 'unreachable':
      return `${(why ?? 'The program is not answering.').replace(/\.$/, '')}: ${held ? 'held in this browser, and kept as soon as it can be.' : ONLY_HERE}`
    case 'unreadable': {
      const where = held ? 'held in this browser.' : ONLY_HERE
      return Object.keys(unread).length > 0
        ? `Not kept while something in it does not read; ${where}`
        : `Not kept: ${why ?? ''} It is ${where}`
    }
  }
}

interface Props<R extends ServerRow> {
  readonly kind: KindName
  readonly standing: Standing<R>
  /** A row as it is shown in a conflict. */
  readonly textOf: (row: R) => string
  /** Takes up what was offered, where that takes more than changing the row. */
  readonly onTakeUp?: () => void
  /** Goes to the row it was kept anew as. */
  readonly onAnew: (id: string) => void
}

/** What stands in the way of a row being kept, and the ways on: nothing that was typed is dropped without being asked. */
export const RowTrouble = <R extends ServerRow>({ kind, standing, textOf, onTakeUp, onAnew }: Props<R>) => {
  const { row, state, theirs, offered } = standing
  const key = kind === 'settings' ? String(row.name) : row.id
  const { noun } = KINDS[kind]
  return (
    <>
      {offered && (
        <div role="status" className={styles.held}>
          <span>Something typed here earlier was not kept.</span>
          <Button tone="strong" onClick={onTakeUp ?? (() => answerOffer(kind, key, true))}>
            Take it up
          </Button>
          <Button onClick={() => answerOffer(kind, key, false)}>Drop it</Button>
        </div>
      )}
      {state === 'conflict' && theirs && (
        <div role="alert" className={styles.conflict}>
          <p>Another tab kept this {noun} in the meantime. Nothing is lost: choose which stands. You can type on.</p>
          <div className={styles.both}>
            <section aria-label="Yours">
              <div className={styles.head}>
                <h3>Here</h3>
                <Button tone="strong" onClick={() => settleRow(kind, key, 'mine')}>
                  Keep this one
                </Button>
              </div>
              <pre>{textOf(row)}</pre>
            </section>
            <section aria-label="Theirs">
              <div className={styles.head}>
                <h3>The other tab</h3>
                <Button onClick={() => settleRow(kind, key, 'theirs')}>Take that one</Button>
              </div>
              <pre>{textOf(theirs)}</pre>
            </section>
          </div>
        </div>
      )}
      {state === 'gone' && (
        <div role="alert" className={styles.held}>
          <span>This {noun} was removed elsewhere. What you have is here.</span>
          <Button
            tone="strong"
            onClick={() => {
              const id = keepAnew(kind, key)
              if (id !== null) onAnew(id)
            }}
          >
            Keep it as a new one
          </Button>
        </div>
      )}
    </>
  )
}
