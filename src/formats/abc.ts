import {
  type Chart,
  type Metre,
  type Result,
  readHarmony,
  readKey,
  readMetre,
  TICKS_PER_QUARTER,
  type Ticks,
  ticks,
  toAscii,
  type WrittenBar,
} from '../core/index.ts'
import { tunesIn } from './abc-tune.ts'
import {
  assemble,
  type FoundBar,
  type FoundChord,
  type Imported,
  type LeftOut,
  notPlayed,
  type Refusal,
  refuse,
  tempoOf,
} from './assemble.ts'

interface AbcElement {
  readonly el_type: string
  readonly type?: string
  readonly duration?: number
  readonly pitches?: readonly unknown[]
  readonly chord?: readonly { readonly name: string; readonly position: string }[]
  readonly startEnding?: string
  readonly meter?: AbcMeter
}
interface AbcMeter {
  readonly type: string
  readonly value?: readonly { readonly num: string; readonly den?: string }[]
}
interface AbcTune {
  readonly lines: readonly { readonly staff?: readonly { readonly voices: readonly (readonly AbcElement[])[] }[] }[]
  readonly metaText: { readonly title?: string; readonly tempo?: unknown }
  readonly getMeter: () => AbcMeter
  readonly getKeySignature: () => { readonly root: string; readonly acc: string; readonly mode: string }
  readonly getBpm: () => number
}

const metreOf = ({ type, value }: AbcMeter): Metre => {
  const beats = (value?.[0]?.num ?? '').split('+').reduce((sum, n) => sum + Number(n), 0)
  const read = readMetre(type === 'cut_time' ? '2/2' : `${beats}/${value?.[0]?.den}`)
  return read.ok ? read.value : { beats: 4, unit: 4 }
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

const chordsAt = (element: AbcElement, at: Ticks, bar: number, leftOut: LeftOut[]): readonly FoundChord[] =>
  (element.chord ?? [])
    .filter((c) => c.position === 'default')
    .flatMap(({ name }) => {
      const symbol = toAscii(name.trim())
      const read = readHarmony(symbol)
      if (read.ok) return [{ at, chord: read.value }]
      leftOut.push({ what: `“${symbol}” in bar ${bar}`, why: 'this chord is not understood' })
      return []
    })

const emptyBar = (): {
  opens: boolean
  closes: boolean
  endings: readonly number[]
  at: number
  chords: FoundChord[]
} => ({
  opens: false,
  closes: false,
  endings: [],
  at: 0,
  chords: [],
})

/** The first voice's bars: its chord symbols where its notes and rests put them. */
const barsOf = (elements: readonly AbcElement[], leftOut: LeftOut[]): readonly FoundBar[] => {
  const bars: FoundBar[] = []
  let bar = emptyBar()
  const end = () => {
    const { at, ...rest } = bar
    if (at > 0 || rest.chords.length > 0) bars.push({ section: null, ...rest, length: ticks(at) })
    const keep = at > 0 || rest.chords.length > 0 ? {} : { opens: bar.opens, endings: bar.endings }
    bar = { ...emptyBar(), ...keep }
  }
  for (const e of elements) {
    if (e.el_type === 'note') {
      bar.chords.push(...chordsAt(e, ticks(bar.at), bars.length + 1, leftOut))
      bar.at += (e.duration ?? 0) * 4 * TICKS_PER_QUARTER
    } else if (e.el_type === 'meter')
      leftOut.push({ what: `a new metre in bar ${bars.length + 1}`, why: 'a chart has one metre throughout' })
    else if (e.el_type === 'bar') {
      const closes = e.type === 'bar_right_repeat' || e.type === 'bar_dbl_repeat'
      const holds = bar.at > 0 || bar.chords.length > 0
      if (closes && holds) bar.closes = true
      else if (closes) {
        const last = bars.at(-1)
        if (last) bars[bars.length - 1] = { ...last, closes: true }
      }
      end()
      if (e.type === 'bar_left_repeat' || e.type === 'bar_dbl_repeat') bar.opens = true
      if (e.startEnding) bar.endings = endingsOf(e.startEnding)
    }
  }
  end()
  return bars
}

/** Signs of the form that a chart's text has none for, by what shows them in a tune. */
const FORM_SIGNS = [
  [/[!+](D\.C\.|D\.S\.|dacapo|segno|coda|fine)/i, 'a jump (da capo, dal segno, coda)'],
  [/^P:/m, 'an order of parts'],
] as const

/** Reads the chord symbols of an ABC tune: the first tune, its first voice. */
export const readAbc = async (source: string): Promise<Result<Imported, Refusal>> => {
  const parsed = await tunesIn<AbcTune>(source)
  if (!parsed.ok) return parsed
  const tunes = parsed.value
  const [tune] = tunes
  const voices = tune?.lines.map((l) => l.staff?.[0]?.voices[0] ?? []) ?? []
  const leftOut: LeftOut[] =
    tunes.length > 1 ? [{ what: `${tunes.length - 1} more tunes`, why: 'one chart is read at a time' }] : []
  const bars = barsOf(voices.flat(), leftOut)
  if (!tune || bars.every((b) => b.chords.length === 0)) return refuse('The tune has no chord symbols.')
  const { root, acc, mode } = tune.getKeySignature()
  const sign = acc.startsWith('b') || acc === 'flat' ? 'b' : acc === '' ? '' : '#'
  const key = readKey(`${root}${sign}${/^(m$|min|dor|phr|aeo|loc)/i.test(mode) ? ' minor' : ''}`)
  const metre = metreOf(tune.getMeter())
  const tempo = tempoOf(tune.metaText.tempo ? (tune.getBpm() * metre.unit) / 4 : 120)
  const title = (tune.metaText.title ?? 'Untitled').replace(/\s+/g, ' ')
  if (voices.flat().some((e) => e.pitches !== undefined))
    leftOut.push({ what: 'the notes', why: 'a chart holds chord symbols only' })
  const said = [...leftOut, ...FORM_SIGNS.filter(([sign]) => sign.test(source)).map(([, what]) => notPlayed(what))]
  return assemble({ title, key: key.ok ? key.value : null, metre, tempo, bars }, said)
}

const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b))
/** A length as a multiple or fraction of a unit, as ABC writes it. */
export const fractionText = (length: number, unit: number): string => {
  const d = divisor(length, unit)
  const [over, under] = [length / d, unit / d]
  return under === 1 ? (over === 1 ? '' : String(over)) : `${over}/${under}`
}

const BARS_IN_A_LINE = 4

const barText = (bar: WrittenBar, unit: number): string =>
  bar.spots.map((s) => `"${s.chord.symbol}"x${fractionText(s.length, unit)}`).join(' ')

/** A chart as an ABC tune: chord symbols over invisible rests. */
export const writeAbc = (chart: Chart): string => {
  const { title, key, metre, tempo, written } = chart
  const unit = (TICKS_PER_QUARTER * 4) / metre.unit
  const keyText = key ? `${key.tonic.name}${key.mode === 'minor' ? 'm' : ''}` : 'none'
  const head = [
    'X:1',
    `T:${title}`,
    `M:${metre.beats}/${metre.unit}`,
    `L:1/${metre.unit}`,
    `Q:1/${metre.unit}=${tempo}`,
    `K:${keyText}`,
  ]
  const lines: string[] = []
  for (let i = 0; i < written.length; i += BARS_IN_A_LINE) {
    const line = written.slice(i, i + BARS_IN_A_LINE).map((bar) => {
      const before = bar.opens ? '|: ' : bar.endings.length > 0 ? `[${bar.endings.join(',')} ` : ''
      return `${before}${barText(bar, unit)} ${bar.closes ? ':|' : '|'}`
    })
    lines.push(line.join(' '))
  }
  return `${[...head, ...lines].join('\n')}\n`
}
