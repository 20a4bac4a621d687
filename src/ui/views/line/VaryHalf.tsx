import { useMemo } from 'react'
import { type LineAnalysis, toGlyphs } from '../../../core/index.ts'
import { DraftBand } from '../../figures/DraftBand.tsx'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { go } from '../../state/address/address.ts'
import { VARY_KINDS, VARY_WHAT, type VaryWhat } from '../../state/address/parts/make.ts'
import type { KeptNote, LineRow } from '../../state/kept/row-types.ts'
import { sounded } from '../../state/line/lines.ts'
import { keepBeside, useVariation as putInPlace, stretchOf, variationsHere } from '../../state/line/varying.ts'
import { concertTune } from '../../state/tune/concert.ts'
import type { ViewProps } from '../view.ts'
import styles from './Make.module.css'

const WHAT_WORDS: Readonly<Record<VaryWhat, string>> = {
  line: 'the whole line',
  bar: 'the bar in view',
  rest: 'from the note in view on',
}

interface Props extends ViewProps {
  readonly row: LineRow
  readonly notes: readonly KeptNote[]
  readonly lineAnalysis: LineAnalysis
}

/** Vary: what may be done to the line in view, each way with what it makes of its chord tones; one press puts it in its place. */
export const VaryHalf = ({ address, kept, openChart, row, notes, lineAnalysis }: Props) => {
  const { weights } = openChart.settings
  const variations = useMemo(() => {
    const tune = concertTune(address, kept)
    const stretch = stretchOf(address.varyWhat, lineAnalysis, address.note)
    return tune && stretch ? variationsHere(sounded(notes), stretch, address, tune, openChart, weights) : []
  }, [address, kept, openChart, notes, lineAnalysis, weights])
  return (
    <section className={styles.vary} aria-label="Vary">
      <div className={styles.cards}>
        {VARY_KINDS.map((vary) => (
          <Button key={vary} pressed={vary === address.vary} onClick={() => go({ vary, draft: 0 })}>
            {vary}
          </Button>
        ))}
        <Select
          label="What is varied"
          labelHidden
          value={address.varyWhat}
          options={VARY_WHAT.map((value) => ({ value, label: WHAT_WORDS[value] }))}
          onPick={(varyWhat) => go({ varyWhat })}
        />
      </div>
      {variations.length === 0 && <p role="status">That changes nothing here.</p>}
      <ul className={styles.variations}>
        {variations.map((v) => (
          <li key={v.name} className={styles.variation}>
            <strong>{toGlyphs(v.name)}</strong>
            <DraftBand notes={v.line} fades={[]} />
            <span>{toGlyphs(v.why)}</span>
            <Button aria-label={`Use: ${v.name}`} onClick={() => putInPlace(row, v)}>
              Use it
            </Button>
            <Button aria-label={`Keep beside: ${v.name}`} onClick={() => keepBeside(`${row.name}, ${v.name}`, v.line)}>
              Keep beside
            </Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
