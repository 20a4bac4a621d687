import {
  type Chart,
  changesOf,
  isFeel,
  type Key,
  metreName,
  NOTE_VALUES,
  ok,
  type Result,
  TICKS_PER_QUARTER,
  type WrittenBar,
} from '../core/index.ts'
import { type AbcMusic, type AbcTune, abcMusic, quartersOf } from './abc-music.ts'
import { tunesIn } from './abc-tune.ts'
import { assemble, type Imported, type LeftOut, type Refusal, refuse } from './assemble.ts'

const countChords = (music: AbcMusic | undefined): number =>
  music?.bars.reduce((sum, b) => sum + b.chords.length, 0) ?? 0

/** Which voice has most chord symbols; the first of those that have as many. */
const chordVoice = (voices: readonly AbcMusic[]): AbcMusic | undefined => {
  return [...voices].sort((a, b) => countChords(b) - countChords(a))[0]
}

const listedTune = ({ tune, music }: { tune: AbcTune | undefined; music: AbcMusic | undefined }, i: number) => ({
  title: tune?.metaText.title ?? `tune ${i + 1}`,
  chords: countChords(music),
})

/**
 * Reads the chord symbols of an ABC file: the tune asked for, by its place, else the first that has any; of it the voice
 * that has most of them.
 */
export const readAbc = async (source: string, asked: number | null = null): Promise<Result<Imported, Refusal>> => {
  const parsed = await tunesIn(source)
  if (!parsed.ok) return parsed
  const tunes = parsed.value.map((voices) => ({
    tune: voices[0]?.tune,
    music: chordVoice(voices.map((v) => abcMusic(v.tune))),
  }))
  const first = Math.max(
    0,
    tunes.findIndex((t) => countChords(t.music) > 0),
  )
  const chosen = asked !== null && asked < tunes.length ? asked : first
  const { tune, music } = tunes[chosen] ?? {}
  if (!tune || !music || countChords(music) === 0) return refuse('The tune has no chord symbols.', 'no_chords')
  const title = (tune.metaText.title ?? 'Untitled').replace(/\s+/g, ' ')
  const notes = music.bars.some((b) => b.notes.length > 0)
  const said: readonly LeftOut[] = [
    ...(tunes.length > 1 ? [{ what: `${tunes.length - 1} more tunes`, why: 'one chart is read at a time' }] : []),
    ...music.leftOut,
    ...(notes ? [{ what: 'the notes', why: 'a chart holds chord symbols only' }] : []),
  ]
  const rhythm = (tune.metaText.rhythm ?? '').trim().toLowerCase()
  const feel = isFeel(rhythm) ? rhythm : undefined
  const made = assemble({ title, quarters: quartersOf(tune), feel, bars: music.bars }, said)
  if (!made.ok || tunes.length === 1) return made
  return ok({ ...made.value, tunes: tunes.map(listedTune), chosen })
}

const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b))
/** A length as a multiple or fraction of a unit, as ABC writes it. */
export const fractionText = (length: number, unit: number): string => {
  const d = divisor(length, unit)
  const [over, under] = [length / d, unit / d]
  return under === 1 ? (over === 1 ? '' : String(over)) : `${over}/${under}`
}

/** A title as a field of its own: one line, and nothing in it begins a comment. */
const titleField = (title: string): string => `T:${title.replace(/\s+/g, ' ').replace(/%/g, '\\%')}`

/** The fields before a tune over a chart; `unit` is what lengths are counted in. */
export const abcHead = (title: string, { metre, tempo, feel }: Chart, unit: string, key: string): readonly string[] => [
  'X:1',
  titleField(title),
  ...(feel ? [`R:${feel}`] : []),
  `M:${metreName(metre)}`,
  `L:${unit}`,
  `Q:1/${metre.unit}=${tempo}`,
  `K:${key}`,
]

const keyField = (key: Key): string => `${key.tonic.name}${key.mode === 'minor' ? 'm' : ''}`

/** What a bar changes of the one before, as fields in front of it. */
export const abcChanges = ({ metre, key }: ReturnType<typeof changesOf>): string =>
  `${metre ? `[M:${metreName(metre)}] ` : ''}${key ? `[K:${keyField(key)}] ` : ''}`

const BARS_IN_A_LINE = 4

/** A length in values there are, the longest first; as one where it has none. */
const inValues = (length: number): readonly number[] => {
  const parts: number[] = []
  let left = length
  for (const { ticks } of NOTE_VALUES)
    while (left >= ticks) {
      parts.push(ticks)
      left -= ticks
    }
  return left === 0 ? parts : [length]
}

const barText = (bar: WrittenBar, unit: number): string =>
  bar.spots
    .map((s) => {
      const rests = inValues(s.length).map((length) => `x${fractionText(length, unit)}`)
      return `"${s.chord.symbol}"${rests.join(' ')}`
    })
    .join(' ')

/** A chart as an ABC tune: chord symbols over invisible rests. */
export const writeAbc = (chart: Chart): string => {
  const { title, key, metre, written } = chart
  const unit = (TICKS_PER_QUARTER * 4) / metre.unit
  const keyText = key ? keyField(key) : 'none'
  const head = abcHead(title, chart, `1/${metre.unit}`, keyText)
  const lines: string[] = []
  let line: string[] = []
  const end = (): void => {
    if (line.length > 0) lines.push(line.join(' '))
    line = []
  }
  for (const [i, bar] of written.entries()) {
    if (bar.section !== null || line.length === BARS_IN_A_LINE) end()
    if (bar.section !== null) lines.push(`P:${bar.section}`)
    const before = bar.opens ? '|: ' : bar.endings.length > 0 ? `[${bar.endings.join(',')} ` : ''
    line.push(`${before}${abcChanges(changesOf(bar, written[i - 1]))}${barText(bar, unit)} ${bar.closes ? ':|' : '|'}`)
  }
  end()
  return `${[...head, ...lines].join('\n')}\n`
}
