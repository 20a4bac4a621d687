import { useStore } from '@nanostores/react'
import { memo } from 'react'
import { EXIT_SIGN } from '../figures/slope-layout.ts'
import { type TabLook, tabPath } from '../figures/tab-shape.ts'
import { Dialog } from '../parts/Dialog.tsx'
import { $legendOpen } from '../state/page/dialogs.ts'
import { KEYS } from './keys.ts'
import styles from './Legend.module.css'

const plain: TabLook = { shape: 'flat', doubled: false, bitten: false, lean: 'right' }
const SHAPES: readonly { readonly look: TabLook; readonly means: string }[] = [
  { look: plain, means: 'flat: chord tone' },
  { look: { ...plain, doubled: true }, means: 'double line: guide tone (3 or 7)' },
  { look: { ...plain, shape: 'arched' }, means: 'arched: extension' },
  { look: { ...plain, shape: 'slanted' }, means: 'slanted towards its best way out: altered' },
  { look: { ...plain, shape: 'hooked' }, means: 'a hook hanging over: suspension, may pass, not rest' },
  { look: { ...plain, shape: 'torn' }, means: 'torn: outside' },
  {
    look: { ...plain, shape: 'torn', bitten: true },
    means: 'with a bite: a rub, a half step from the root or a guide tone',
  },
]
const WAYS = [
  ['half step down', 'thick: a half step'],
  ['whole step up', 'thin: a whole step'],
  ['held', 'dotted: held'],
] as const
/** Our own few words. */
const WORDS = [
  [
    'Fade',
    'how far out, 0 to 100: a chord tone 0, a tension some, a note that rubs most; of an overlay, mostly the mean of its notes and a share of the worst',
  ],
  [
    'Landing',
    'how well it comes home, 0 to 100: the best step each note has into the next chord; a half step into a guide tone counts most',
  ],
  ['Overlay', 'what is laid over a chord: a triad, a pair, a scale, on its own root'],
  ['Route', 'an overlay for each chord; the one in hand is what every view shows and the band plays'],
  ['Seam', 'the join between two overlays'],
  ['School', 'the set of judgements one follows'],
] as const
/** What may stand in a chart's text. */
const CHART_TEXT = [
  ['| Dm7 G7 | Cmaj7 |', 'bars; chords share a bar evenly'],
  ['Dm7:3 G7', 'a chord of three beats, the next takes the rest; Dm7 / / G7 does the same'],
  ['%  N.C.  ?', 'the bar before once more; no chord; a chord nobody knows'],
  ['|: … :|  1.  2.', 'a repeat and its endings'],
  ['3/4', 'another metre from here on: before a chord, or metre = 3/4 on a line of its own'],
  ['key = Eb', 'the key, and another one between bars'],
  ['== A', 'a section'],
  ['pickup = 1', 'beats before the first bar; also title, tempo, feel'],
  ['// a word', 'a remark'],
] as const
const PLACES = ['everywhere', 'strip', 'an overlay', 'a route', 'the player', 'lists'] as const
const HEADS = {
  everywhere: 'Keys everywhere',
  strip: 'On the strip',
  'an overlay': 'On an overlay',
  'a route': 'On the Route view',
  'the player': 'On the player and in the quiz',
  lists: 'In lists',
} as const

/** What the shapes mean and every key there is. */
export const Legend = memo(() => {
  const open = useStore($legendOpen)
  return (
    <Dialog title="Shapes and keys" open={open} onClose={() => $legendOpen.set(false)}>
      <div className={styles.columns}>
        <section>
          <h3>Fade and landing</h3>
          <dl className={styles.words}>
            {WORDS.map(([word, means]) => (
              <div key={word}>
                <dt>{word}</dt>
                <dd>{means}</dd>
              </div>
            ))}
          </dl>
          <h3>A note’s tab</h3>
          <p>Its height, and its colour, is how far out it is. The outline is what it is:</p>
          <ul className={styles.shapes}>
            {SHAPES.map(({ look, means }) => (
              <li key={means}>
                <svg viewBox="0 0 44 40" className={styles.tab} aria-hidden="true">
                  <path d={tabPath(look, 2, 4, 34, 34)} />
                  {look.doubled && <path className={styles.double} d="M6,10 H32" />}
                </svg>
                {means}
              </li>
            ))}
          </ul>
          <h3>A way home</h3>
          <ul>
            {WAYS.map(([how, means]) => (
              <li key={how}>
                <strong>{EXIT_SIGN[how]}</strong> {means}
              </li>
            ))}
            <li>A short cut stub: no way into the next chord.</li>
          </ul>
          <h3>A chart’s text</h3>
          <dl className={styles.words}>
            {CHART_TEXT.map(([sign, means]) => (
              <div key={sign}>
                <dt>{sign}</dt>
                <dd>{means}</dd>
              </div>
            ))}
          </dl>
        </section>
        <section>
          {PLACES.map((where) => (
            <div key={where}>
              <h3>{HEADS[where]}</h3>
              <dl className={styles.keys}>
                {KEYS.filter((k) => k.where === where).map((k) => (
                  <div key={k.shown}>
                    <dt>{k.shown}</dt>
                    <dd>{k.does}</dd>
                  </div>
                ))}
              </dl>
            </div>
          ))}
          <p>
            In the Degrees field of a line digits and accidentals are degrees; while it is empty ← → walk the notes, ↑ ↓
            move the note by a half step, with Shift by an octave, Shift ← → in time, &lt; &gt; make it shorter and
            longer, Backspace takes it out.
          </p>
          <p>
            The pedal’s PageDown and PageUp move to the next and previous chord, even while you type; pressed twice it
            counts in and plays. While the band plays they take the next and previous loop.
          </p>
        </section>
      </div>
    </Dialog>
  )
})
