import { useId } from 'react'
import styles from './parts.module.css'

interface Props<T extends string> {
  readonly label: string
  readonly hint?: string
  readonly labelHidden?: boolean
  readonly value: T
  readonly options: readonly { readonly value: T; readonly label: string }[]
  readonly onPick: (value: T) => void
}

/** A labelled choice among a few. */
export const Select = <T extends string>({ label, hint, labelHidden = false, value, options, onPick }: Props<T>) => {
  const id = useId()
  const hintId = `${id}-hint`
  return (
    <div className={styles.field}>
      <label htmlFor={id} className={labelHidden ? styles.hidden : styles.label}>
        {label}
      </label>
      {hint && (
        <p id={hintId} className={styles.hint}>
          {hint}
        </p>
      )}
      <select
        id={id}
        className={styles.select}
        aria-describedby={hint ? hintId : undefined}
        value={value}
        onChange={(e) => {
          const picked = options.find((o) => o.value === e.target.value)
          if (picked) onPick(picked.value)
        }}
      >
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.label}
          </option>
        ))}
      </select>
    </div>
  )
}
