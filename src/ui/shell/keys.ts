import { hearOverlay, keep, moveBar, moveChord, moveToEnd, moveToStart, playOrStop, slip } from '../stores/actions.ts'
import { redoLast, undoLast } from '../stores/kept.ts'
import { go, VIEWS } from '../stores/place.ts'
import { backOut, focusAsk, toggleLegend } from './shell-actions.ts'

/** One row of the table of keys: letters by key code, signs by the character. `shown` is what the legend prints. */
export interface KeyRow {
  readonly where: 'everywhere' | 'strip' | 'an overlay'
  readonly keys: readonly string[]
  readonly shown: string
  readonly does: string
  readonly act: () => void
}

const toView = ({ id, label, letter }: (typeof VIEWS)[number]): KeyRow => ({
  where: 'everywhere',
  keys: [`KeyG Key${letter.toUpperCase()}`],
  shown: `g ${letter}`,
  does: label,
  act: () => go({ view: id }),
})

/** Every key there is. They are silent while one types; the pedal is not among them and works even then. */
export const KEYS: readonly KeyRow[] = [
  { where: 'everywhere', keys: ['/', 'Shift+/'], shown: '/', does: 'ask', act: focusAsk },
  { where: 'everywhere', keys: ['Space'], shown: 'Space', does: 'play or stop', act: playOrStop },
  ...VIEWS.map(toView),
  { where: 'everywhere', keys: ['?', 'Shift+?'], shown: '?', does: 'shapes and keys', act: toggleLegend },
  { where: 'everywhere', keys: ['$mod+KeyZ'], shown: 'Ctrl Z', does: 'undo', act: () => void undoLast() },
  { where: 'everywhere', keys: ['$mod+Shift+KeyZ'], shown: 'Ctrl Shift Z', does: 'redo', act: () => void redoLast() },
  { where: 'everywhere', keys: ['Escape'], shown: 'Esc', does: 'back out', act: backOut },
  { where: 'strip', keys: ['ArrowLeft'], shown: '←', does: 'chord before', act: () => moveChord(-1) },
  { where: 'strip', keys: ['ArrowRight'], shown: '→', does: 'next chord', act: () => moveChord(1) },
  { where: 'strip', keys: ['Shift+ArrowLeft'], shown: 'Shift ←', does: 'bar before', act: () => moveBar(-1) },
  { where: 'strip', keys: ['Shift+ArrowRight'], shown: 'Shift →', does: 'next bar', act: () => moveBar(1) },
  { where: 'strip', keys: ['Home'], shown: 'Home', does: 'first chord', act: moveToStart },
  { where: 'strip', keys: ['End'], shown: 'End', does: 'last chord', act: moveToEnd },
  { where: 'an overlay', keys: ['Enter'], shown: 'Enter', does: 'hear over the chord', act: hearOverlay },
  { where: 'an overlay', keys: ['KeyK'], shown: 'k', does: 'keep', act: keep },
  { where: 'an overlay', keys: [','], shown: ',', does: 'slip down a half step', act: () => slip(-1) },
  { where: 'an overlay', keys: ['.'], shown: '.', does: 'slip up a half step', act: () => slip(1) },
]

export const PEDAL = { PageDown: () => moveChord(1), PageUp: () => moveChord(-1) } as const
