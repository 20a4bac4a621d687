import { useStore } from '@nanostores/react'
import { useCallback, useEffect, useState } from 'react'
import type { Place as Spotted } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { type Address, choose } from '../../state/address/address.ts'
import { type Filters, NO_FILTERS } from '../../state/address/filters.ts'
import { $listed, askAgain, indexIn, listFor } from '../../state/desk/ranking.ts'
import { layWritten } from '../../state/tune/laying.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { DegreeToggles } from './DegreeToggles.tsx'
import { FilterPanel } from './FilterPanel.tsx'
import { filterWords, oneFilter, withoutFilters } from './filter-words.ts'
import styles from './LayOver.module.css'
import { OverlayList } from './OverlayList.tsx'

const SORTS = [
  { value: 'use', label: 'most used here first' },
  { value: 'fade', label: 'furthest in first' },
  { value: 'landing', label: 'best landing first' },
  { value: 'key', label: 'nearest key first' },
] as const

const setFilters = (filters: Filters): void => choose('the filters', { filters }, 'filters')

/** Nothing fits: which filter to drop, and what would be left. */
const Nothing = ({ address, spot }: { readonly address: Address; readonly spot: Spotted }) => {
  const escapes = useStore($listed).ranking?.escapes ?? []
  const { filters } = address
  return (
    <div className={styles.nothing} aria-live="polite">
      <p>Nothing can match all of this at once.</p>
      {escapes.map((e) => {
        const words = e.drop.map((d) => oneFilter(d, filters, spot.chord)).join(' and ')
        return (
          <Button key={words} onClick={() => setFilters(withoutFilters(filters, e.drop))}>
            Drop “{words}”: {e.left} {e.left === 1 ? 'is' : 'are'} left
          </Button>
        )
      })}
    </div>
  )
}

interface Props {
  readonly address: Address
  readonly openChart: OpenChart
  readonly spot: Spotted
  readonly ideas: number
  /** To the kept ideas, where there is no room for both lists. */
  readonly onIdeas: () => void
}

/** Everything that can be laid over this chord, ranked; filters answer at each key. */
export const LayOver = ({ address, openChart, spot, ideas, onIdeas }: Props) => {
  const { ranking, pending, failed } = useStore($listed)
  const [more, setMore] = useState(false)
  useEffect(() => listFor(address, openChart), [address, openChart])
  const { instrument } = openChart
  const lay = useCallback((name: string) => layWritten(name, { instrument }), [instrument])
  const { filters } = address
  const wanted = filterWords(filters, spot.chord)
  const count = ranking?.names.length ?? 0
  return (
    <section className={styles.layOver} aria-label="Lay over">
      <header className={styles.head}>
        <h2>Lay over</h2>
        <span className={styles.wanted}>{wanted || 'anything'}</span>
        {wanted && (
          <Button tone="quiet" onClick={() => setFilters({ ...NO_FILTERS, sort: filters.sort })}>
            Clear
          </Button>
        )}
        <Button className={styles.turn ?? ''} onClick={onIdeas}>
          Kept {ideas}
        </Button>
      </header>
      <DegreeToggles chord={spot.chord} filters={filters} onChange={setFilters} />
      <div className={styles.tools}>
        <input
          type="search"
          aria-label="Find by name"
          placeholder="by name"
          value={filters.text}
          onChange={(e) => setFilters({ ...filters, text: e.target.value })}
        />
        <Select
          label="Order"
          labelHidden
          value={filters.sort}
          options={SORTS}
          onPick={(sort) => setFilters({ ...filters, sort })}
        />
        <Button pressed={more} aria-expanded={more} onClick={() => setMore(!more)}>
          More
        </Button>
      </div>
      {more && <FilterPanel filters={filters} onChange={setFilters} />}
      {failed ? (
        <div className={styles.nothing} role="alert">
          <p>The overlays could not be ranked. Nothing is lost.</p>
          <Button onClick={() => askAgain(address, openChart)}>Try again</Button>
        </div>
      ) : ranking === null ? (
        <p className={styles.nothing} aria-busy="true">
          Ranking …
        </p>
      ) : count === 0 && !pending ? (
        <Nothing address={address} spot={spot} />
      ) : (
        <>
          <p className={styles.heads} aria-hidden="true">
            <span>
              {count} of {ranking.of}
            </span>
            <span>fade</span>
            <span>lands</span>
          </p>
          <OverlayList ranking={ranking} index={indexIn(ranking, openChart)} onLay={lay} />
        </>
      )}
    </section>
  )
}
