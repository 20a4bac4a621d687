import { useStore } from '@nanostores/react'
import { type KeyboardEvent, useEffect, useState } from 'react'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import {
  $writing,
  clearWriting,
  editLine,
  editNote,
  LENGTHS,
  type NoteEdit,
  setBeats,
  typeInto,
} from '../../state/line/line-editing.ts'
import { moveNote } from '../../state/line/lines.ts'
import { $instrument, stopPlayingIn, togglePlayingIn } from '../../state/line/playing-in.ts'
import styles from './WriteBar.module.css'

/** Keys of the empty entry field, by the key and what is held with it. */
const FIELD_KEYS: Readonly<Record<string, NoteEdit>> = {
  ArrowUp: 'up',
  ArrowDown: 'down',
  'Shift+ArrowUp': 'octave up',
  'Shift+ArrowDown': 'octave down',
  'Shift+ArrowLeft': 'earlier',
  'Shift+ArrowRight': 'later',
  Backspace: 'remove',
  '<': 'shorter',
  '>': 'longer',
}

const EDITS: readonly (readonly [NoteEdit, string, string])[] = [
  ['down', '−½', 'A half step down (↓ in the empty field)'],
  ['up', '+½', 'A half step up (↑)'],
  ['octave down', '−8', 'An octave down (Shift ↓)'],
  ['octave up', '+8', 'An octave up (Shift ↑)'],
  ['earlier', '←', 'Earlier (Shift ←)'],
  ['later', '→', 'Later (Shift →)'],
  ['shorter', 'shorter', 'Shorter (<)'],
  ['longer', 'longer', 'Longer (>)'],
  ['remove', 'take out', 'Take the note out (Backspace)'],
]

const nearestLength = (beats: number): string =>
  String([...LENGTHS].sort((a, b) => Math.abs(a[0] - beats) - Math.abs(b[0] - beats))[0]?.[0] ?? 0.5)

/** Where a line is written: degrees against the chord that sounds, and edits of the note in view. */
export const WriteBar = () => {
  const { beats, error } = useStore($writing)
  const instrument = useStore($instrument)
  useEffect(() => stopPlayingIn, [])
  const [text, setText] = useState('')
  const enter = (typed: string) => {
    if (typed.trim() !== '' && typeInto(typed)) setText('')
  }
  const onKeyDown = (e: KeyboardEvent<HTMLInputElement>) => {
    if (e.ctrlKey || e.metaKey || e.altKey) return
    if (e.key === 'Enter' || (e.key === ' ' && text.trim() !== '')) {
      e.preventDefault()
      return enter(text)
    }
    if (text !== '') return
    const edit = FIELD_KEYS[`${e.shiftKey && e.key.startsWith('Arrow') ? 'Shift+' : ''}${e.key}`]
    const walk = e.shiftKey ? undefined : { ArrowLeft: -1 as const, ArrowRight: 1 as const }[e.key]
    if (edit === undefined && walk === undefined && e.key !== ' ') return
    e.preventDefault()
    e.stopPropagation()
    if (walk !== undefined) {
      clearWriting()
      moveNote(walk)
    } else if (edit !== undefined) editNote(edit)
  }
  return (
    <div className={styles.bar}>
      <div className={styles.entry}>
        <label htmlFor="degrees">Degrees</label>
        <input
          id="degrees"
          value={text}
          autoComplete="off"
          spellCheck={false}
          placeholder="3 5 b7 9"
          aria-describedby="degrees-hint"
          aria-invalid={error !== null}
          onChange={(e) => setText(e.target.value)}
          onPaste={(e) => {
            e.preventDefault()
            enter(e.clipboardData.getData('text'))
          }}
          onKeyDown={onKeyDown}
        />
        <Select
          label="Length of the next note"
          labelHidden
          value={nearestLength(beats)}
          options={LENGTHS.map(([value, label]) => ({ value: String(value), label }))}
          onPick={(v) => setBeats(Number(v))}
        />
      </div>
      <div className={styles.edits}>
        {EDITS.map(([edit, label, title]) => (
          <Button key={edit} title={title} aria-label={title} onClick={() => editNote(edit)}>
            {label}
          </Button>
        ))}
        <Button
          pressed={instrument !== null}
          title={instrument ?? 'Write by playing a MIDI instrument'}
          onClick={() => void togglePlayingIn()}
        >
          play it in
        </Button>
        <span className={styles.gap}>all</span>
        <Button aria-label="The whole line a half step down" onClick={() => editLine({ semitones: -1 })}>
          −½
        </Button>
        <Button aria-label="The whole line a half step up" onClick={() => editLine({ semitones: 1 })}>
          +½
        </Button>
      </div>
      {error ? (
        <p id="degrees-hint" role="alert" className={styles.wrong}>
          “{error.found}” is not understood: {error.expected.join(', or ')}.
        </p>
      ) : (
        <p id="degrees-hint" className={styles.hint}>
          Degrees of the chord that sounds, each near the note before: <kbd>5'</kbd> above it, <kbd>5,</kbd> below,{' '}
          <kbd>r</kbd> a rest, <kbd>:1/2</kbd> so many beats. Empty, arrows walk and move notes.
        </p>
      )}
    </div>
  )
}
