import academico from '@vexflow-fonts/academico/academico.woff2?url'
import bravura from '@vexflow-fonts/bravura/bravura.woff2?url'
import { Accidental, Font, Formatter, Renderer, Stave, StaveNote, VexFlow, Voice, VoiceMode } from 'vexflow/core'
import type { Pitch } from '../../core/index.ts'

export type StaffClef = 'treble' | 'bass' | 'alto'

/** What one call draws: heads at the same place in one entry, and where each came to stand. */
export interface Drawn {
  /** Middle of each entry, px from the left. */
  readonly xs: readonly number[]
  /** Height of the stave's middle line and the distance between lines, px. */
  readonly middle: number
  readonly space: number
  readonly height: number
}

const LETTERS = 'cdefgab'
const SIGN: Readonly<Record<number, string>> = { [-2]: 'bb', [-1]: 'b', 0: 'n', 1: '#', 2: '##' }

let fonts: Promise<unknown> | undefined
/** The fonts ship with the program; the library's own loader would ask an outside host. */
export const notationFonts = (): Promise<unknown> => {
  fonts ??= Promise.all([Font.load('Bravura', bravura), Font.load('Academico', academico)]).then(() =>
    VexFlow.setFonts('Bravura', 'Academico'),
  )
  return fonts
}

export const vexKey = ({ note, octave }: Pitch): string => `${LETTERS[note.letter]}${SIGN[note.alter] ?? ''}/${octave}`

/** Room over and under the lines for ledger lines, in the notation's own units: the stave has four spaces of ten. */
const TOP = -8
const HEIGHT = 118

/** Draws stemless heads on one stave; entries are notes or chords. Accidentals hold for the whole stave, as in a bar. */
export const drawStave = (
  box: HTMLDivElement,
  entries: readonly (readonly Pitch[])[],
  clef: StaffClef,
  width: number,
  scale: number,
): Drawn => {
  box.replaceChildren()
  const renderer = new Renderer(box, Renderer.Backends.SVG)
  renderer.resize(width, HEIGHT * scale)
  const context = renderer.getContext()
  context.scale(scale, scale)
  const stave = new Stave(0, TOP, width / scale - 2)
  stave.addClef(clef).setContext(context).draw()
  const notes = entries.map(
    (pitches) => new StaveNote({ keys: pitches.map(vexKey), duration: 'q', clef, autoStem: true }),
  )
  const voice = new Voice().setMode(VoiceMode.SOFT).addTickables(notes)
  Accidental.applyAccidentals([voice], 'C')
  new Formatter().joinVoices([voice]).format([voice], width / scale - 90)
  voice.draw(context, stave)
  box.querySelector('svg')?.setAttribute('aria-hidden', 'true')
  return {
    xs: notes.map((n) => (n.getAbsoluteX() + 6) * scale),
    middle: stave.getYForLine(2) * scale,
    space: stave.getSpacingBetweenLines() * scale,
    height: HEIGHT * scale,
  }
}
