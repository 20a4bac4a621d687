import { useStore } from '@nanostores/react'
import { toGlyphs } from '../../../../core/index.ts'
import { Button } from '../../../parts/Button.tsx'
import { go } from '../../../state/address/address.ts'
import type { Kept } from '../../../state/kept/kept.ts'
import type { TakeRow } from '../../../state/kept/row-types.ts'
import { FIRST } from '../../../state/page/first.ts'
import { $takesFailed, moreTakes, removeTake } from '../../../state/takes/takes.ts'
import { dayWords } from '../../overlay/day-words.ts'
import { useTakes } from '../../overlay/use-take.ts'
import styles from './Takes.module.css'

export const sourceWords = (source: string): string =>
  ({ midi: 'MIDI', microphone: 'microphone', keys: 'keys', simulated: 'simulated player' })[source] ?? source

/** What a take is, in a line. */
export const takeFacts = (row: TakeRow): string => {
  const bars = row.bars ? `bars ${row.bars[0]}–${row.bars[1]}, ` : ''
  const sound = row.sound ? ', with sound' : ''
  return `${bars}${row.notes.length} notes at ${row.tempo}, ${sourceWords(row.source)}${sound}, ${dayWords(row.createdAt)}`
}

const ofHere = (row: TakeRow, kept: Kept): boolean => row.chartId !== null && row.chartId === kept.chart?.id

/** All takes, those over the open chart first. */
export const TakeList = ({ kept }: { readonly kept: Kept }) => {
  const { takes, next } = useTakes()
  const failed = useStore($takesFailed, FIRST)
  if (failed !== null)
    return (
      <p role="alert">
        The takes could not be fetched: {failed} <Button onClick={() => void moreTakes()}>Try again</Button>
      </p>
    )
  if (next === undefined) return <p role="status">Fetching the takes …</p>
  if (takes.length === 0)
    return (
      <p>
        No take yet. Open a chart, lay a route over it if you like, and press Record: afterwards you are told what was
        out, what came home, and whether the plan was kept. The simulated player shows how, without an instrument.
      </p>
    )
  const inOrder = [...takes].sort((a, b) => Number(ofHere(b, kept)) - Number(ofHere(a, kept)))
  return (
    <>
      <ul className={styles.list} aria-label="Takes">
        {inOrder.map((row) => (
          <li key={row.id}>
            <button type="button" className={styles.open} onClick={() => go({ take: row.id, otherTake: null })}>
              <b>{toGlyphs(row.name)}</b>
              <span>{takeFacts(row)}</span>
            </button>
            <Button aria-label={`Remove ${row.name}`} onClick={() => void removeTake(row)}>
              Remove
            </Button>
          </li>
        ))}
      </ul>
      {next !== null && <Button onClick={() => void moreTakes()}>More takes</Button>}
    </>
  )
}
