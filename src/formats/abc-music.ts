import {
  barTicks,
  type Harmony,
  type Key,
  type Metre,
  type Note,
  noteOn,
  pitchOn,
  readHarmony,
  readKey,
  readMetre,
  TICKS_PER_QUARTER,
  type Ticks,
  ticks,
  toAscii,
  UNKNOWN_CHORD,
} from '../core/index.ts'
import { inPartOrder } from './abc-parts.ts'
import type { FoundBar, FoundChord, LeftOut } from './assemble.ts'
import { type JumpSign, jumpsOf, signOfWords } from './jumps.ts'
import { type BarNote, gracesLeftOut, type VoiceBar } from './played-bars.ts'

interface AbcKey {
  readonly accidentals?: readonly { readonly acc: string; readonly note: string }[]
}
interface AbcPitch {
  /** Steps from the C in the middle. */
  readonly pitch: number
  readonly accidental?: string
  readonly startTie?: object
  readonly endTie?: boolean
}
interface AbcElement extends AbcKey, NamedKey {
  readonly el_type: string
  readonly type?: string
  readonly title?: string
  readonly decoration?: readonly string[]
  readonly duration?: number
  readonly rest?: { readonly type: string; readonly text?: number }
  readonly pitches?: readonly AbcPitch[]
  readonly gracenotes?: readonly object[]
  readonly chord?: readonly { readonly name: string; readonly position: string }[]
  readonly startEnding?: string
  readonly startTriplet?: number
  readonly tripletMultiplier?: number
  readonly endTriplet?: boolean
  readonly value?: AbcMeter['value']
}
interface AbcMeter {
  readonly type: string
  readonly value?: readonly { readonly num: string; readonly den?: string }[]
}
interface AbcStaff {
  readonly voices: readonly (readonly AbcElement[])[]
  readonly key?: AbcKey & NamedKey
  /** A metre that begins with its line. */
  readonly meter?: AbcMeter
  readonly clef?: { readonly type: string; readonly transpose?: number }
}
export interface AbcTune {
  readonly lines: readonly { readonly staff?: readonly AbcStaff[] }[]
  readonly metaText: {
    readonly title?: string
    readonly rhythm?: string
    /** The order of its parts, where its head says one. */
    readonly partOrder?: string
    readonly tempo?: { readonly duration?: readonly number[]; readonly bpm?: number }
  }
  readonly getMeter: () => AbcMeter
  readonly getKeySignature: () => NamedKey
}
interface NamedKey {
  readonly root?: string
  readonly acc?: string
  readonly mode?: string
}

/** A bar of a voice: its notes, and its chord symbols where notes and rests put them. */
export type AbcBar = FoundBar & VoiceBar

export interface AbcMusic {
  readonly bars: readonly AbcBar[]
  readonly leftOut: readonly LeftOut[]
}

export const metreOf = ({ type, value }: AbcMeter): Metre => {
  const beats = (value?.[0]?.num ?? '').split('+').reduce((sum, n) => sum + Number(n), 0)
  const read = readMetre(type === 'cut_time' ? '2/2' : `${beats}/${value?.[0]?.den}`)
  return read.ok ? read.value : { beats: 4, unit: 4 }
}

/** A key by its name: a mode with a minor third is minor; null where it is none of a tonic. */
const keyOf = ({ root = '', acc = '', mode = '' }: NamedKey): Key | null => {
  const sign = acc.startsWith('b') || acc === 'flat' ? 'b' : acc === '' ? '' : '#'
  const read = readKey(`${root}${sign}${/^(m$|min|dor|phr|aeo|loc)/i.test(mode) ? ' minor' : ''}`)
  return read.ok ? read.value : null
}

/** Quarters a minute of a tempo that names its beat; 120 where none is said. */
export const quartersOf = ({ metaText: { tempo } }: AbcTune): number => {
  const beat = (tempo?.duration ?? []).reduce((sum, d) => sum + d, 0)
  return tempo?.bpm ? tempo.bpm * 4 * (beat > 0 ? beat : 1 / 4) : 120
}

const endingsOf = (mark: string): readonly number[] =>
  mark
    .split(/[,\s]+/)
    .flatMap((m) => {
      const [low, high] = m.split('-').map(Number)
      return Array.from(
        { length: Math.max(0, Math.min(9, high ?? low ?? 0) - (low ?? 1)) + 1 },
        (_, i) => (low ?? 1) + i,
      )
    })
    .filter((n) => Number.isInteger(n) && n > 0 && n < 10)

const ALTER: Readonly<Record<string, number>> = { dblflat: -2, flat: -1, natural: 0, sharp: 1, dblsharp: 2 }
const LETTERS = 'CDEFGAB'

/** What a key signature does to each letter. */
const signature = ({ accidentals }: AbcKey): readonly number[] => {
  const alters = [0, 0, 0, 0, 0, 0, 0]
  for (const { acc, note } of accidentals ?? []) {
    const letter = LETTERS.indexOf(note.toUpperCase())
    if (letter >= 0) alters[letter] = ALTER[acc] ?? 0
  }
  return alters
}

/** How far a voice sounds from what is written: what it says of itself, and the octave of its clef. */
const shiftOf = ({ clef }: AbcStaff): number =>
  (clef?.transpose ?? 0) + (clef?.type.endsWith('-8') ? -12 : clef?.type.endsWith('+8') ? 12 : 0)

/** A chord symbol, in brackets or not; in brackets beside another it is a second choice. */
const symbolOf = (name: string): { readonly chord: Harmony | null; readonly isSecond: boolean } => {
  const read = readHarmony(name)
  const inner = read.ok || !/^\(.*\)$/.test(name) ? null : readHarmony(name.slice(1, -1))
  return { chord: read.ok ? read.value : inner?.ok ? inner.value : null, isSecond: inner !== null }
}

/** The chord over an element. */
const chordsAt = (e: AbcElement, at: Ticks, bar: number, leftOut: LeftOut[]): readonly FoundChord[] => {
  const all = (e.chord ?? [])
    .filter((c) => c.position === 'default')
    .flatMap((c) => c.name.split('\n'))
    .map((name) => toAscii(name.trim()))
    .filter((name) => name !== '')
    .map((name) => ({ name, ...symbolOf(name) }))
  const first = all.find((c) => !c.isSecond) ?? all[0]
  const say = (name: string, why: string): void => void leftOut.push({ what: `“${name}” in bar ${bar}`, why })
  return all.flatMap((c) => {
    if (c !== first) say(c.name, 'one chord stands in a place')
    else if (c.chord) return [{ at, chord: c.chord }]
    else {
      say(c.name, 'this chord is not understood: a ? stands there')
      return [{ at, chord: UNKNOWN_CHORD }]
    }
    return []
  })
}

const DECORATIONS: Readonly<Record<string, JumpSign>> = {
  ...{ segno: 'segno', coda: 'coda', fine: 'fine' },
  ...{ 'D.C.': 'dacapo', dacapo: 'dacapo', 'D.C.alcoda': 'dacapo', 'D.C.alfine': 'dacapo' },
  ...{ 'D.S.': 'dalsegno', dalsegno: 'dalsegno', 'D.S.alcoda': 'dalsegno', 'D.S.alfine': 'dalsegno' },
}
/** Signs of a jump over an element: as ornaments, or in words. */
const signsOf = ({ decoration, chord }: AbcElement): readonly JumpSign[] => [
  ...(decoration ?? []).flatMap((d) => DECORATIONS[d] ?? []),
  ...(chord ?? []).filter((c) => c.position !== 'default').flatMap((c) => signOfWords(c.name) ?? []),
]

interface OpenBar {
  section: string | null
  opens: boolean
  closes: boolean
  endings: readonly number[]
  at: number
  chords: FoundChord[]
  notes: BarNote[]
  signs: JumpSign[]
  /** As its first note or rest found them: what is said at its end is for the next. */
  ground: { readonly metre: Metre; readonly key: Key | null } | null
}
const emptyBar = (): OpenBar => ({
  ...{ section: null, opens: false, closes: false, endings: [], at: 0, chords: [], notes: [], signs: [], ground: null },
})

const WHOLE = 4 * TICKS_PER_QUARTER

/** Reads the one voice of a tune bar by bar: its notes as they sound, spelled as they are written, and its chords. */
export const abcMusic = (tune: AbcTune): AbcMusic => {
  const bars: AbcBar[] = []
  const signs: JumpSign[][] = []
  const leftOut: LeftOut[] = []
  let bar = emptyBar()
  let metre = metreOf(tune.getMeter())
  let key = keyOf(tune.getKeySignature())
  let [alters, shift, tuplet, graces] = [signature({}), 0, 1, 0]
  /** Accidentals of this bar, by the step they stand on; and notes that are tied on, with theirs. */
  let here = new Map<number, number>()
  let tied = new Map<number, number>()
  const holds = () => bar.at > 0 || bar.chords.length > 0
  const end = () => {
    here = new Map()
    const { at, signs: own, ground, ...rest } = bar
    if (holds()) {
      bars.push({ ...rest, ...(ground ?? { metre, key }), length: ticks(at) })
      signs.push(own)
      bar = emptyBar()
    } else bar = { ...emptyBar(), opens: bar.opens, endings: bar.endings, section: bar.section, signs: own }
  }
  const notesOf = (e: AbcElement, length: number): void => {
    const going = new Map<number, number>()
    for (const { pitch: step, accidental, startTie, endTie } of e.pitches ?? []) {
      const letter = ((step % 7) + 7) % 7
      const own = accidental === undefined ? undefined : ALTER[accidental]
      if (own !== undefined) here.set(step, own)
      const alter = own ?? (endTie ? tied.get(step) : undefined) ?? here.get(step) ?? alters[letter] ?? 0
      const note = noteOn(letter, alter)
      if (startTie) going.set(step, alter)
      if (!note) continue
      const { pitch } = pitchOn(note, Math.floor(step / 7) + 4)
      const spelled: { note?: Note } = shift % 12 === 0 ? { note } : {}
      bar.notes.push({ at: bar.at, for: length, pitch: pitch + shift, ...spelled, tied: endTie === true })
    }
    if (e.pitches) tied = going
  }
  for (const line of tune.lines) {
    const staff = line.staff?.[0]
    if (!staff) continue
    // A line that ends with its bar full needs no bar line.
    if (bar.ground && Math.abs(bar.at - barTicks(bar.ground.metre)) < 1) end()
    alters = signature(staff.key ?? {})
    key = keyOf(staff.key ?? {}) ?? key
    if (staff.meter) metre = metreOf(staff.meter)
    shift = shiftOf(staff)
    for (const e of staff.voices[0] ?? []) {
      switch (e.el_type) {
        case 'note': {
          graces += e.gracenotes?.length ?? 0
          bar.ground ??= { metre, key }
          bar.signs.push(...signsOf(e))
          bar.chords.push(...chordsAt(e, ticks(bar.at), bars.length + 1, leftOut))
          if (e.rest?.type === 'spacer') break
          const rests = e.rest?.type.endsWith('multimeasure') ? (e.rest.text ?? 1) : 0
          for (let i = 1; i < rests; i++) {
            bar.at += barTicks(metre)
            end()
          }
          if (e.startTriplet) tuplet = e.tripletMultiplier ?? 1
          // The parser counts a rest of a whole bar by the metre of the line, not of the bar.
          const isBar = rests > 0 || (e.rest?.type === 'whole' && bar.at === 0)
          const length = isBar ? barTicks(metre) : (e.duration ?? 0) * WHOLE * tuplet
          notesOf(e, length)
          bar.at += length
          if (e.endTriplet) tuplet = 1
          break
        }
        case 'key':
          alters = signature(e)
          key = keyOf(e) ?? key
          break
        case 'meter':
          if (e.type) metre = metreOf({ type: e.type, ...(e.value ? { value: e.value } : {}) })
          break
        case 'part':
          if (e.title) bar.section = e.title.replace(/\s+/g, ' ').trim().slice(0, 40)
          break
        case 'bar': {
          const closes = e.type === 'bar_right_repeat' || e.type === 'bar_dbl_repeat'
          const last = bars.at(-1)
          if (closes && holds()) bar.closes = true
          else if (closes && last) bars[bars.length - 1] = { ...last, closes: true }
          const here = signsOf(e).map((s): JumpSign => (s === 'coda' ? 'coda after' : s))
          const before = holds() ? bar.signs : signs.at(-1)
          before?.push(...here.filter((s) => s !== 'segno'))
          end()
          bar.signs.push(...here.filter((s) => s === 'segno'))
          if (e.type === 'bar_left_repeat' || e.type === 'bar_dbl_repeat') bar.opens = true
          if (e.startEnding) bar.endings = endingsOf(e.startEnding)
        }
      }
    }
  }
  end()
  leftOut.push(...gracesLeftOut(graces))
  if (tune.lines.some((l) => (l.staff?.[0]?.voices.length ?? 0) > 1))
    leftOut.push({ what: 'voices laid over each other in one bar', why: 'the first of them is read' })
  const jumps = jumpsOf(signs)
  const written = bars.map((b, i) => ({ ...b, jumps: jumps[i] }))
  const { partOrder } = tune.metaText
  const played = partOrder ? inPartOrder(written, partOrder) : written
  if (!played)
    leftOut.push({ what: 'an order of parts', why: 'not all of them are there: they stand as they are written' })
  return { bars: played ?? written, leftOut }
}
