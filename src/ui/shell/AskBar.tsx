import { type KeyboardEvent, useId, useState } from 'react'
import { type TextError, toGlyphs } from '../../core/index.ts'
import { ASK_ID } from '../state/page/focus.ts'
import { ask } from '../state/tune/asking.ts'
import type { OpenChart } from '../state/tune/open-chart.ts'
import styles from './AskBar.module.css'
import { suggest } from './suggest.ts'

/** What was wrong, in words; the place is shown under the word itself. */
const errorWords = ({ found, expected }: TextError): string => {
  const wanted =
    expected.length > 1
      ? `one of: ${expected.slice(0, 5).map(toGlyphs).join(' · ')}`
      : toGlyphs(expected[0] ?? 'something else')
  return found ? `“${found}” is not understood here. Expected ${wanted}.` : `Something is missing: ${wanted}.`
}

const placeholder = (openChart: OpenChart): string => {
  const reading = openChart.current?.reading
  if (!reading) return 'B minor pentatonic over E♭7 to A♭maj7'
  const { chord, next } = reading.place
  return toGlyphs(`${reading.overlay.name} over ${chord.symbol}${next ? ` to ${next.symbol}` : ''}`)
}

/** A question in the player's words: errors under the word that is wrong, suggestions as one types. */
export const AskBar = ({ openChart }: { readonly openChart: OpenChart }) => {
  const [text, setText] = useState('')
  const [error, setError] = useState<TextError | null>(null)
  const [open, setOpen] = useState(false)
  const [picked, setPicked] = useState(-1)
  const ids = { list: useId(), error: useId() }
  const suggestions = open && error === null && text.trim() ? suggest(text, openChart) : []

  const submit = (question: string, field: HTMLInputElement | null) => {
    const answered = ask(question)
    setOpen(false)
    setPicked(-1)
    if (answered.ok) {
      setText('')
      setError(null)
      field?.blur()
    } else {
      setText(question)
      setError(answered.error)
    }
  }
  const onKeyDown = (e: KeyboardEvent<HTMLInputElement>) => {
    if (e.key === 'Enter') {
      e.preventDefault()
      submit(suggestions[picked] ?? text, e.currentTarget)
    } else if (e.key === 'Escape') {
      e.preventDefault()
      setError(null)
      setOpen(false)
      if (suggestions.length === 0) e.currentTarget.blur()
    } else if ((e.key === 'ArrowDown' || e.key === 'ArrowUp') && suggestions.length > 0) {
      e.preventDefault()
      const count = suggestions.length + 1
      setPicked(((picked + 1 + (e.key === 'ArrowDown' ? 1 : -1) + count) % count) - 1)
    }
  }
  return (
    <search className={styles.ask}>
      <input
        id={ASK_ID}
        className={styles.field}
        type="search"
        aria-label="Ask"
        placeholder={placeholder(openChart)}
        value={text}
        autoComplete="off"
        autoCorrect="off"
        autoCapitalize="off"
        spellCheck={false}
        aria-invalid={error !== null}
        aria-describedby={error ? ids.error : undefined}
        aria-autocomplete="list"
        aria-controls={suggestions.length > 0 ? ids.list : undefined}
        aria-activedescendant={picked >= 0 ? `${ids.list}-${picked}` : undefined}
        onChange={(e) => {
          setText(e.target.value)
          setError(null)
          setOpen(true)
          setPicked(-1)
        }}
        onBlur={() => setOpen(false)}
        onKeyDown={onKeyDown}
      />
      <kbd className={styles.key} aria-hidden="true">
        /
      </kbd>
      {suggestions.length > 0 && (
        <ul id={ids.list} className={styles.list} role="listbox" aria-label="Suggestions">
          {suggestions.map((s, i) => (
            <li
              key={s}
              id={`${ids.list}-${i}`}
              role="option"
              aria-selected={i === picked}
              className={i === picked ? styles.picked : ''}
              onPointerDown={(e) => {
                e.preventDefault()
                submit(s, null)
              }}
            >
              {toGlyphs(s)}
            </li>
          ))}
        </ul>
      )}
      {error && (
        <div className={styles.error} id={ids.error} role="alert">
          <div className={styles.under} aria-hidden="true">
            <span className={styles.before}>{text.slice(0, error.at)}</span>
            <span className={styles.wrong} data-testid="wrong-word">
              {error.found || ' '}
            </span>
          </div>
          <p>{errorWords(error)}</p>
          {error.questions && (
            <fieldset className={styles.meant}>
              <legend>Perhaps you meant</legend>
              {error.questions.map((q) => (
                <button key={q} type="button" onClick={() => submit(q, null)}>
                  {toGlyphs(q)}
                </button>
              ))}
            </fieldset>
          )}
        </div>
      )}
    </search>
  )
}
