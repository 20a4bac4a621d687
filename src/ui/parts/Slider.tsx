import { memo, useEffect, useId, useRef, useState } from 'react'
import styles from './parts.module.css'

interface Props {
  readonly label: string
  readonly value: number
  readonly least?: number
  readonly most?: number
  readonly step?: number
  readonly onChange: (value: number) => void
  /** At rest for a moment: the value to keep. */
  readonly onSettle?: (value: number) => void
}

const REST_MS = 350

/** A labelled slider that says its value. */
export const Slider = ({ label, value, least = 0, most = 100, step = 1, onChange, onSettle }: Props) => {
  const id = useId()
  const resting = useRef<ReturnType<typeof setTimeout>>(undefined)
  useEffect(() => () => clearTimeout(resting.current), [])
  const change = (to: number) => {
    onChange(to)
    clearTimeout(resting.current)
    if (onSettle) resting.current = setTimeout(() => onSettle(to), REST_MS)
  }
  return (
    <div className={styles.slider}>
      <label htmlFor={id}>{label}</label>
      <span className={styles.figure} aria-hidden="true">
        {value}
      </span>
      <input
        id={id}
        type="range"
        min={least}
        max={most}
        step={step}
        value={value}
        onChange={(e) => change(Number(e.target.value))}
      />
    </div>
  )
}

type SettlingProps = Omit<Props, 'onChange' | 'onSettle'> & { readonly onSettle: (value: number) => void }

/** A slider of a value that is kept elsewhere: it moves by itself and tells when it has come to rest. */
export const SettlingSlider = memo(({ value, onSettle, ...rest }: SettlingProps) => {
  const [moving, setMoving] = useState<{ readonly from: number; readonly to: number } | null>(null)
  const shown = moving?.from === value ? moving.to : value
  return <Slider {...rest} value={shown} onChange={(to) => setMoving({ from: value, to })} onSettle={onSettle} />
})
