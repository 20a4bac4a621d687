import { useStore } from '@nanostores/react'
import { toGlyphs } from '../../core/index.ts'
import { Button } from '../parts/Button.tsx'
import { type Address, AT_START, go } from '../state/address/address.ts'
import { KINDS } from '../state/kept/kinds.ts'
import { $opening, openingKey } from '../state/kept/opening.ts'
import { $isLetIn } from '../state/kept/request.ts'
import type { KindName } from '../state/kept/row-types.ts'
import { $left, $rows, dropLeft, forgetRow, keepAnew, keepLeft, settleRow } from '../state/kept/rows.ts'
import type { ServerRow, Standing } from '../state/kept/standing.ts'
import type { Left } from '../state/kept/unsent.ts'
import { FIRST } from '../state/page/first.ts'
import { standingWords } from '../views/overlay/RowTrouble.tsx'
import styles from './Notices.module.css'

const MOST_SHOWN = 3

/** Where a row of a kind is shown, with its own words on how it stands. */
const goToRow = (kind: KindName, id: string): void => {
  if (kind === 'charts') go({ view: 'charts', chart: id, sketch: null, ...AT_START })
  else if (kind === 'lines') go({ view: 'line', line: id, note: 0 })
  else if (kind === 'routes') go({ view: 'route', panel: 'kept' })
  else go({ view: 'desk' })
}

/** What a tab that is gone left unsent: of a new row by itself, of another where it is opened. */
const LeftOver = ({ left }: { readonly left: Left }) => {
  const opening = useStore($opening, FIRST)[openingKey(left.kind, left.id)]
  const isNew = left.version === 0
  const isGone = opening?.state === 'missing'
  return (
    <section className={styles.notice} aria-label="Held from earlier">
      <span>
        Not kept earlier: the {KINDS[left.kind].noun} {toGlyphs(left.title)}
        {isGone ? ', which was removed' : ''}
      </span>
      {isNew || isGone ? (
        <Button
          onClick={() => {
            const id = keepLeft(left)
            if (left.kind === 'charts') goToRow('charts', id)
          }}
        >
          {isGone ? 'Keep it as a new one' : 'Keep it now'}
        </Button>
      ) : (
        <Button onClick={() => goToRow(left.kind, left.id)}>Show it</Button>
      )}
      <Button onClick={() => dropLeft(left)}>Drop it</Button>
    </section>
  )
}

interface Troubled {
  readonly kind: KindName
  readonly key: string
  readonly standing: Standing<ServerRow>
}

const Trouble = ({ kind, id, standing }: Omit<Troubled, 'key'> & { readonly id: string }) => {
  const { state, row } = standing
  const title = (KINDS[kind].title as (row: ServerRow) => string)(row)
  return (
    <section
      className={styles.notice}
      aria-label={`Not kept: ${title}`}
      role={state === 'conflict' ? 'alert' : undefined}
    >
      <span>
        The {KINDS[kind].noun} {toGlyphs(title)}. {standingWords(standing)}
      </span>
      {state === 'conflict' && (
        <>
          <Button onClick={() => settleRow(kind, id, 'mine')}>Keep this one</Button>
          <Button onClick={() => settleRow(kind, id, 'theirs')}>Take the other</Button>
        </>
      )}
      {state === 'gone' && <Button onClick={() => void keepAnew(kind, id)}>Keep it as a new one</Button>}
      {(state === 'gone' || (state === 'unreadable' && row.version === 0)) && (
        <Button onClick={() => forgetRow(kind, id)}>Drop it</Button>
      )}
    </section>
  )
}

const useTroubled = (): readonly Troubled[] => {
  const all = {
    charts: useStore($rows.charts, FIRST),
    routes: useStore($rows.routes, FIRST),
    lines: useStore($rows.lines, FIRST),
    ideas: useStore($rows.ideas, FIRST),
    takes: useStore($rows.takes, FIRST),
    items: useStore($rows.items, FIRST),
    log: useStore($rows.log, FIRST),
    settings: useStore($rows.settings, FIRST),
  } as Readonly<Record<KindName, Readonly<Record<string, Standing<ServerRow>>>>>
  return (Object.keys(all) as KindName[]).flatMap((kind) =>
    Object.entries(all[kind])
      .filter(([, { state }]) => state !== 'kept' && state !== 'waiting')
      .map(([key, standing]) => ({ kind, key, standing })),
  )
}

/** What is not kept and is not told of where one is; and what an earlier visit left. */
export const Unkept = ({ address }: { readonly address: Address }) => {
  const left = useStore($left, FIRST)
  const isToldHere = ({ kind, key }: Troubled): boolean =>
    (address.view === 'charts' && kind === 'charts' && key === address.chart) ||
    (address.view === 'line' && kind === 'lines')
  const troubled = useTroubled().filter((t) => !isToldHere(t))
  const open = left.filter((l) => l.version === 0 || !$rows[l.kind].get()[l.id])
  const more = troubled.length + open.length - 2 * MOST_SHOWN
  const isLetIn = useStore($isLetIn, FIRST)
  return (
    <>
      {!isLetIn && (
        <p className={styles.notice} role="alert">
          <span>This device is let in no longer. What you change is held here.</span>
          <a href="/door">Give a code</a>
        </p>
      )}
      {open.slice(0, MOST_SHOWN).map((l) => (
        <LeftOver key={l.key} left={l} />
      ))}
      {troubled.slice(0, MOST_SHOWN).map((t) => (
        <Trouble key={`${t.kind} ${t.key}`} kind={t.kind} id={t.key} standing={t.standing} />
      ))}
      {more > 0 && <p className={styles.notice}>and {more} more</p>}
    </>
  )
}
