import {
  Accidental,
  Barline,
  Beam,
  Dot,
  Formatter,
  Fraction,
  GhostNote,
  type RenderContext,
  Renderer,
  Stave,
  StaveNote,
  StaveTie,
  TabNote,
  TabStave,
  Tuplet,
  Voice,
  VoiceMode,
} from 'vexflow/core'
import {
  type Fingered,
  groupsOf,
  IN_TIME_OF,
  type Metre,
  type Pitch,
  tupletsIn,
  type Written,
} from '../../core/index.ts'
import { type StaffClef, vexKey } from './notation.ts'
import { STAFF, staffHeight } from './staff-size.ts'

const DURATIONS = {
  whole: 'w',
  half: 'h',
  quarter: 'q',
  eighth: '8',
  '16th': '16',
  '32nd': '32',
  '64th': '64',
} as const

/** One bar to be drawn. */
export interface BarDrawn {
  readonly signs: readonly Written[]
  /** By their place in the line. */
  readonly pitches: readonly Pitch[]
  readonly frets: readonly (Fingered | null)[] | null
  readonly strings: number
  readonly clef: StaffClef
  /** As the notation library names it: `Bbm`. */
  readonly key: string
  readonly metre: Metre
  readonly last: boolean
  /** Whether its first note came over from the bar before. */
  readonly tiedOver: boolean
  readonly width: number
  /** Where a moment stands, px from the bar's left side. */
  readonly x: (tick: number) => number
  /** The class of a note's head, by its fade. */
  readonly classOf: (note: number) => string
}

const REST_KEY = { treble: 'b/4', bass: 'd/3', alto: 'c/4' } as const

const staveNote = ({ pitches, clef }: BarDrawn, s: Written): StaveNote => {
  const pitch = s.note === null ? undefined : pitches[s.note]
  const duration = `${DURATIONS[s.value]}${'d'.repeat(s.dots)}${pitch ? '' : 'r'}`
  const note = new StaveNote({ keys: [pitch ? vexKey(pitch) : REST_KEY[clef]], duration, clef, autoStem: true })
  if (s.dots > 0) Dot.buildAndAttach([note], { all: true })
  return note
}

const tabNote = ({ frets, strings }: BarDrawn, s: Written): TabNote | GhostNote => {
  const at = s.note === null ? null : frets?.[s.note]
  const duration = `${DURATIONS[s.value]}${'d'.repeat(s.dots)}`
  return at
    ? new TabNote({ positions: [{ str: strings - at.string, fret: String(at.fret) }], duration })
    : new GhostNote({ duration })
}

/** Sets every sign where its moment stands, instead of where the library would space it. */
const setAt = (all: readonly (StaveNote | TabNote | GhostNote)[], stave: Stave, bar: BarDrawn): void => {
  for (const [i, note] of all.entries()) {
    note.setStave(stave)
    const context = note.getTickContext()
    context.setX(0)
    const alone = bar.signs.length === 1 && bar.signs[i]?.note === null
    const wanted = alone ? bar.width / 2 : bar.x(bar.signs[i]?.at ?? 0)
    context.setX(wanted / STAFF.scale - note.getAbsoluteX())
  }
}

/** A voice of these signs, ready to be placed; with the accidentals its key asks for. */
const softVoice = (all: readonly (StaveNote | TabNote | GhostNote)[], key: string | null): Voice => {
  const voice = new Voice().setMode(VoiceMode.SOFT).addTickables([...all])
  if (key !== null) Accidental.applyAccidentals([voice], key)
  const formatter = new Formatter().joinVoices([voice])
  formatter.createTickContexts([voice])
  formatter.preFormat()
  return voice
}

/** What is beamed together: two beats of a group of four, each beat of three quarters, three eighths in one. */
const beamGroups = (metre: Metre): Fraction[] =>
  groupsOf(metre).flatMap((g) => {
    if (g === 3 && metre.unit < 8) return Array.from({ length: 3 }, () => new Fraction(1, metre.unit))
    return g === 4 ? [new Fraction(2, metre.unit), new Fraction(2, metre.unit)] : [new Fraction(g, metre.unit)]
  })

const drawTab = (context: RenderContext, bar: BarDrawn): void => {
  const stave = new TabStave(0, STAFF.tab, bar.width / STAFF.scale, { leftBar: false, numLines: bar.strings })
  stave.setContext(context).draw()
  const notes = bar.signs.map((s) => tabNote(bar, s))
  const voice = softVoice(notes, null)
  setAt(notes, stave, bar)
  voice.draw(context, stave)
}

const contextIn = (box: HTMLDivElement, width: number, withTab: boolean): RenderContext => {
  box.replaceChildren()
  const renderer = new Renderer(box, Renderer.Backends.SVG)
  renderer.resize(width, staffHeight(withTab))
  const context = renderer.getContext()
  context.scale(STAFF.scale, STAFF.scale)
  return context
}

/** Draws the clef and the key signature that hold for the whole line. */
export const drawClef = (box: HTMLDivElement, clef: StaffClef, key: string, strings: number): void => {
  const context = contextIn(box, STAFF.gutter, strings > 0)
  const width = STAFF.gutter / STAFF.scale
  const stave = new Stave(0, STAFF.top, width, { leftBar: false, rightBar: false })
  stave.addClef(clef).addKeySignature(key).setContext(context).draw()
  if (strings === 0) return
  const tab = new TabStave(0, STAFF.tab, width, { leftBar: false, rightBar: false, numLines: strings })
  tab.addClef('tab').setContext(context).draw()
}

/** Draws one bar of a line into a box: notes where their moments are, beamed by the groups of the metre, ties and triplets. */
export const drawBar = (box: HTMLDivElement, bar: BarDrawn): void => {
  const context = contextIn(box, bar.width, bar.frets !== null)
  const stave = new Stave(0, STAFF.top, bar.width / STAFF.scale, { leftBar: false })
  stave.setEndBarType(bar.last ? Barline.type.END : Barline.type.SINGLE)
  stave.setContext(context).draw()
  const notes = bar.signs.map((s) => staveNote(bar, s))
  const voice = softVoice(notes, bar.key)
  const beams = Beam.generateBeams(notes, { groups: beamGroups(bar.metre) })
  const tuplets = tupletsIn(bar.signs).map(
    ({ places, of }) =>
      new Tuplet(
        places.flatMap((i) => notes[i] ?? []),
        { numNotes: of, notesOccupied: IN_TIME_OF[of] },
      ),
  )
  setAt(notes, stave, bar)
  voice.draw(context, stave)
  for (const drawn of [...beams, ...tuplets]) drawn.setContext(context).draw()
  for (const [i, s] of bar.signs.entries()) {
    const [from, to] = [notes[i], notes[i + 1]]
    if (s.note !== null) notes[i]?.getSVGElement()?.classList.add(...bar.classOf(s.note).split(' '))
    if (s.tied && from) new StaveTie({ firstNote: from, ...(to ? { lastNote: to } : {}) }).setContext(context).draw()
  }
  const [first] = notes
  if (bar.tiedOver && first) new StaveTie({ lastNote: first }).setContext(context).draw()
  if (bar.frets) drawTab(context, bar)
  box.querySelector('svg')?.setAttribute('aria-hidden', 'true')
}
