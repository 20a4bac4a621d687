import type { ButtonHTMLAttributes } from 'react'
import styles from './parts.module.css'

interface Props extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly tone?: 'plain' | 'strong' | 'quiet'
  /** For a toggle: whether it is on. */
  readonly pressed?: boolean
}

export const Button = ({ tone = 'plain', pressed, className, ...rest }: Props) => (
  <button
    type="button"
    aria-pressed={pressed}
    className={[
      styles.button,
      tone === 'plain' ? '' : styles[tone],
      pressed ? styles.pressed : '',
      className ?? '',
    ].join(' ')}
    {...rest}
  />
)
