import { type KeyboardEvent, useState } from 'react'
import { type Chord, degreeOver, pitchClass, toGlyphs } from '../../../core/index.ts'
import { type Filters, toggled } from '../../state/address/filters.ts'
import { DEGREES_ID } from '../../state/page/focus.ts'
import styles from './LayOver.module.css'

interface Props {
  readonly chord: Chord
  readonly filters: Filters
  readonly onChange: (filters: Filters) => void
}

const MEANS = { hold: 'must be there', avoid: 'must not be there', off: 'either' } as const
const UPS = Array.from({ length: 12 }, (_, up) => up)

/** Twelve degrees, each wanted, unwanted or either. One tab stop: arrows walk, Space turns, + wants, − refuses. */
export const DegreeToggles = ({ chord, filters, onChange }: Props) => {
  const [at, setAt] = useState(1)
  const stateOf = (up: number) => (filters.hold.includes(up) ? 'hold' : filters.avoid.includes(up) ? 'avoid' : 'off')
  const walk = (e: KeyboardEvent<HTMLDivElement>) => {
    if (e.ctrlKey || e.metaKey || e.altKey) return
    const turn = { '+': 'hold', '-': 'avoid', Backspace: 'off' }[e.key] as 'hold' | 'avoid' | 'off' | undefined
    const by = { ArrowRight: 1, ArrowLeft: -1 }[e.key]
    if (turn) onChange(toggled(filters, at, turn))
    else if (by !== undefined && !e.shiftKey) {
      const to = (at + by + 12) % 12
      setAt(to)
      e.currentTarget.querySelectorAll<HTMLButtonElement>('button')[to]?.focus()
    } else return
    e.preventDefault()
    e.stopPropagation()
  }
  return (
    <div id={DEGREES_ID} role="toolbar" aria-label="Degrees" className={styles.degrees} onKeyDown={walk}>
      {UPS.map((up) => {
        const state = stateOf(up)
        const own = ((chord.ownSet >> up) & 1) === 1
        const name = toGlyphs(degreeOver(chord, pitchClass(chord.root.pc + up)))
        return (
          <button
            key={up}
            type="button"
            tabIndex={up === at ? 0 : -1}
            className={[styles.degree, own ? styles.own : '', styles[state]].join(' ')}
            aria-label={`${name}: ${MEANS[state]}`}
            title={`${name}: ${MEANS[state]}. Space turns it, + wants it, − refuses it`}
            onFocus={() => setAt(up)}
            onClick={() => onChange(toggled(filters, up, 'next'))}
          >
            {name}
          </button>
        )
      })}
    </div>
  )
}
