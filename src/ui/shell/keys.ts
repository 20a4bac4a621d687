import { $address, go } from '../state/address/address.ts'
import type { FigureId } from '../state/address/parts/desk.ts'
import { VIEWS } from '../state/address/views.ts'
import { showFigure, toggleFigure } from '../state/desk/figures.ts'
import { cycleHome } from '../state/desk/judging.ts'
import { togglePicking } from '../state/desk/picking.ts'
import { toggleTray } from '../state/desk/tray.ts'
import { moveNote } from '../state/line/lines.ts'
import { openSchool, toggleBand, toggleLegend } from '../state/page/dialogs.ts'
import { focusAsk, focusDegrees, focusMends } from '../state/page/focus.ts'
import { banHere, joinHere, moveStep, nudgeWish, splitHere } from '../state/route/steering.ts'
import {
  answerHere,
  enterHere,
  gradeHere,
  keepHere,
  layInView,
  makeHere,
  moveKeyHere,
  pedalHere,
  playHere,
  practiseHere,
  takeHere,
} from '../state/shell/hands.ts'
import { moveRow } from '../state/shell/lists.ts'
import { redoLast, undoLast } from '../state/shell/undoing.ts'
import { markLoop } from '../state/sound/looping.ts'
import { layNothing } from '../state/tune/in-hand.ts'
import { moveBar, moveChord, moveToEnd, moveToStart, slip } from '../state/tune/moving.ts'
import { backOut, toggleStand } from './shell-actions.ts'

/** One row of the table of keys: letters by key code, signs by the character. `shown` is what the legend prints. */
export interface KeyRow {
  readonly where: 'everywhere' | 'strip' | 'an overlay' | 'a route' | 'the player' | 'lists'
  readonly keys: readonly string[]
  readonly shown: string
  readonly does: string
  readonly act: () => void
}

const toView = ({ id, label, letter }: (typeof VIEWS)[number]): readonly KeyRow[] =>
  letter === null
    ? []
    : [
        {
          where: 'everywhere',
          keys: [`KeyG Key${letter.toUpperCase()}`],
          shown: `g ${letter}`,
          does: label,
          act: () => go({ view: id }),
        },
      ]

const figure = (key: string, id: FigureId): KeyRow => ({
  where: 'an overlay',
  keys: [`Digit${key}`, `Numpad${key}`],
  shown: key,
  does: id,
  act: () => answerHere(Number(key)) || showFigure(id),
})

const onRoute = (act: () => void) => (): void => {
  if ($address.get()?.view === 'route') act()
}

/** Every key there is. They are silent while one types; the pedal is not among them and works even then. */
export const KEYS: readonly KeyRow[] = [
  { where: 'everywhere', keys: ['/', 'Shift+/'], shown: '/', does: 'ask', act: focusAsk },
  { where: 'everywhere', keys: ['Space'], shown: 'Space', does: 'play or stop', act: playHere },
  { where: 'everywhere', keys: ['KeyV'], shown: 'v', does: 'volume, feel and loop of the band', act: toggleBand },
  ...VIEWS.flatMap(toView),
  { where: 'everywhere', keys: ['KeyS'], shown: 's', does: 'stand: to be read from afar', act: toggleStand },
  { where: 'everywhere', keys: ['?', 'Shift+?'], shown: '?', does: 'shapes and keys', act: toggleLegend },
  { where: 'everywhere', keys: ['$mod+KeyZ'], shown: 'Ctrl Z', does: 'undo', act: () => void undoLast() },
  { where: 'everywhere', keys: ['$mod+Shift+KeyZ'], shown: 'Ctrl Shift Z', does: 'redo', act: () => void redoLast() },
  { where: 'everywhere', keys: ['Escape'], shown: 'Esc', does: 'back out', act: backOut },
  {
    where: 'strip',
    keys: ['ArrowLeft'],
    shown: '←',
    does: 'chord before',
    act: () => gradeHere('again') || moveNote(-1) || moveStep(-1) || moveChord(-1),
  },
  {
    where: 'strip',
    keys: ['ArrowRight'],
    shown: '→',
    does: 'next chord',
    act: () => gradeHere('clean') || moveNote(1) || moveStep(1) || moveChord(1),
  },
  { where: 'strip', keys: ['Shift+ArrowLeft'], shown: 'Shift ←', does: 'bar before', act: () => moveBar(-1) },
  { where: 'strip', keys: ['Shift+ArrowRight'], shown: 'Shift →', does: 'next bar', act: () => moveBar(1) },
  { where: 'strip', keys: ['Home'], shown: 'Home', does: 'first chord', act: moveToStart },
  { where: 'strip', keys: ['End'], shown: 'End', does: 'last chord', act: moveToEnd },
  { where: 'strip', keys: ['['], shown: '[', does: 'loop begins with this bar', act: () => markLoop('from') },
  { where: 'strip', keys: [']'], shown: ']', does: 'loop ends with this bar', act: () => markLoop('to') },
  {
    where: 'an overlay',
    keys: ['Enter'],
    shown: 'Enter',
    does: 'hear over the chord; in the quiz the next question',
    act: enterHere,
  },
  { where: 'an overlay', keys: ['KeyL'], shown: 'l', does: 'lay it here, in the route in hand', act: layInView },
  {
    where: 'an overlay',
    keys: ['Delete', 'Backspace'],
    shown: 'Delete',
    does: 'take away what lies here',
    act: layNothing,
  },
  { where: 'an overlay', keys: ['KeyK'], shown: 'k', does: 'keep', act: keepHere },
  { where: 'an overlay', keys: ['KeyE'], shown: 'e', does: 'make a line of it', act: () => void makeHere() },
  {
    where: 'an overlay',
    keys: ['KeyP'],
    shown: 'p',
    does: 'practise it, in all keys',
    act: () => void practiseHere(),
  },
  {
    where: 'an overlay',
    keys: [','],
    shown: ',',
    does: 'slip down a half step',
    act: () => moveKeyHere(-1) || slip(-1),
  },
  { where: 'an overlay', keys: ['.'], shown: '.', does: 'slip up a half step', act: () => moveKeyHere(1) || slip(1) },
  { where: 'an overlay', keys: ['KeyT'], shown: 't', does: 'into the tray, or out', act: toggleTray },
  { where: 'an overlay', keys: ['KeyW'], shown: 'w', does: 'why this number', act: () => toggleFigure('why') },
  { where: 'an overlay', keys: ['KeyM'], shown: 'm', does: 'mends', act: focusMends },
  { where: 'an overlay', keys: ['KeyH'], shown: 'h', does: 'next home scale', act: cycleHome },
  { where: 'an overlay', keys: ['KeyO'], shown: 'o', does: 'school', act: openSchool },
  { where: 'an overlay', keys: ['KeyN'], shown: 'n', does: 'pick notes, or only hear them', act: togglePicking },
  {
    where: 'a route',
    keys: ['Shift+ArrowUp'],
    shown: 'Shift ↑',
    does: 'further out here',
    act: onRoute(() => nudgeWish(5)),
  },
  {
    where: 'a route',
    keys: ['Shift+ArrowDown'],
    shown: 'Shift ↓',
    does: 'less far out here',
    act: onRoute(() => nudgeWish(-5)),
  },
  {
    where: 'a route',
    keys: ['Shift+KeyL'],
    shown: 'Shift l',
    does: 'take the whole chain in hand',
    act: onRoute(() => void takeHere()),
  },
  { where: 'a route', keys: ['KeyB'], shown: 'b', does: 'not this here', act: onRoute(banHere) },
  { where: 'a route', keys: ['KeyX'], shown: 'x', does: 'split this step', act: onRoute(splitHere) },
  {
    where: 'a route',
    keys: ['KeyJ'],
    shown: 'j',
    does: 'join it to the one before, or part them',
    act: onRoute(joinHere),
  },
  { where: 'the player', keys: [], shown: '→ ←', does: 'that was clean, again', act: () => undefined },
  { where: 'the player', keys: [], shown: '↑ ↓', does: 'that was easy, hard', act: () => undefined },
  { where: 'the player', keys: [], shown: ', .', does: 'the key before, the next key', act: () => undefined },
  { where: 'the player', keys: [], shown: '1 – 4', does: 'in the quiz: an answer', act: () => undefined },
  figure('1', 'slope'),
  figure('2', 'keyboard'),
  figure('3', 'fretboard'),
  figure('4', 'staff'),
  { where: 'lists', keys: ['ArrowDown'], shown: '↓', does: 'next row', act: () => gradeHere('hard') || moveRow(1) },
  { where: 'lists', keys: ['ArrowUp'], shown: '↑', does: 'row before', act: () => gradeHere('easy') || moveRow(-1) },
  { where: 'lists', keys: ['KeyF'], shown: 'f', does: 'degrees wanted: arrows, + wants, - refuses', act: focusDegrees },
]

export const PEDAL = {
  PageDown: (at: number) => pedalHere(1, at),
  PageUp: (at: number) => pedalHere(-1, at),
} as const
