import {
  type Chord,
  type Harmony,
  NO_CHORD,
  readHarmony,
  readNote,
  setOf,
  tonesOf,
  UNKNOWN_CHORD,
} from '../core/index.ts'

/** One alteration of a chord as MusicXML has it: `value` 5, `alter` -1, `type` alter is a lowered fifth. */
export interface XmlDegree {
  readonly value: number
  readonly alter: number
  readonly type: 'add' | 'alter' | 'subtract'
}

/** A chord as MusicXML has it. */
export interface XmlHarmony {
  readonly root: string
  readonly bass: string | null
  readonly kind: string
  readonly text: string | null
  readonly degrees: readonly XmlDegree[]
}

/** Chord kinds of MusicXML and our quality for each; the first of several is the one written. */
const KINDS: readonly (readonly [kind: string, quality: string])[] = [
  ['major', ''],
  ['minor', 'm'],
  ['augmented', '+'],
  ['diminished', 'dim'],
  ['dominant', '7'],
  ['major-seventh', 'maj7'],
  ['minor-seventh', 'm7'],
  ['diminished-seventh', 'dim7'],
  ['half-diminished', 'm7b5'],
  ['major-minor', 'mMaj7'],
  ['augmented-seventh', '7#5'],
  ['major-sixth', '6'],
  ['minor-sixth', 'm6'],
  ['dominant-ninth', '9'],
  ['major-ninth', 'maj9'],
  ['minor-ninth', 'm9'],
  ['dominant-11th', '11'],
  ['major-11th', 'maj11'],
  ['minor-11th', 'm11'],
  ['dominant-13th', '13'],
  ['major-13th', 'maj13'],
  ['minor-13th', 'm13'],
  ['suspended-second', 'sus2'],
  ['suspended-fourth', 'sus4'],
  ['power', '5'],
  ['Neapolitan', ''],
  ['Italian', '7'],
  ['French', '7b5'],
  ['German', '7'],
  ['pedal', '5'],
]

const SIGNS: Readonly<Record<string, string>> = { '-2': 'bb', '-1': 'b', '0': '', '1': '#', '2': '##' }
export const alterSign = (alter: number): string => SIGNS[String(alter)] ?? ''

/** Our symbol for a kind and its degrees: a fourth for a third is a suspension, the rest goes into brackets. */
const symbolOf = ({ root, bass, kind, degrees }: XmlHarmony): string | null => {
  const quality = KINDS.find(([k]) => k === kind)?.[1]
  if (quality === undefined) return null
  const suspends =
    degrees.some((d) => d.type === 'subtract' && d.value === 3) &&
    degrees.some((d) => d.type === 'add' && d.value === 4)
  const rest = degrees.filter((d) => !(suspends && (d.value === 3 || d.value === 4)))
  const seventh = rest.find((d) => d.type === 'add' && d.value === 7)
  const isSus = quality.startsWith('sus')
  const base = isSus && seventh ? `7${quality}` : quality
  const items = rest
    .filter((d) => d !== seventh || !isSus)
    .map((d) => {
      if (d.type === 'subtract') return `no${d.value}`
      const plain = d.type === 'add' && d.alter === 0 && !/\d/.test(base)
      return `${plain ? 'add' : ''}${alterSign(d.alter)}${d.value}`
    })
  const whole = base + (suspends ? 'sus4' : '') + (items.length > 0 ? `(${items.join(',')})` : '')
  return root + whole + (bass === null || bass === root ? '' : `/${bass}`)
}

const soundOf = (chord: Harmony): number => (chord.kind === 'chord' ? setOf(tonesOf(chord).map((t) => t.note.pc)) : 0)

const read = (symbol: string | null): Harmony | null => {
  const found = symbol === null ? null : readHarmony(symbol)
  return found?.ok ? found.value : null
}

/**
 * A chord of ours for one of MusicXML: what is printed (`text`) where it reads and says no less than the structure or more
 * than its kind, else the structure. Null where neither is understood.
 */
export const fromXml = (harmony: XmlHarmony): Harmony | null => {
  if (harmony.kind === 'none') return harmony.text === '?' ? UNKNOWN_CHORD : NO_CHORD
  const { root, bass, text } = harmony
  const structural = read(symbolOf(harmony))
  const slash = bass === null || bass === root ? '' : `/${bass}`
  const printed =
    text === null
      ? null
      : text.startsWith('(') && text.includes('|')
        ? read(text)
        : (read(root + text + slash) ?? read(root + text))
  if (!printed || !structural) return printed ?? structural
  const [said, held] = [soundOf(printed), soundOf(structural)]
  const saysAll = (said & held) === held || text?.includes('alt') || text?.startsWith('(')
  // `7sus4` under a plain dominant says more than its kind; alterations that stand beside the kind say more than `7`.
  const saysMore = text !== '' && harmony.degrees.length === 0 && ((said & ~held) !== 0 || /omit|no/i.test(text ?? ''))
  return saysAll || saysMore ? printed : structural
}

const KIND_OF = new Map(KINDS.map(([kind, quality]) => [quality, kind]).reverse() as [string, string][])

const degreeOf = (name: string, type: XmlDegree['type']): XmlDegree => {
  const sign = /^[b#]*/.exec(name)?.[0] ?? ''
  return { value: Number(name.slice(sign.length)), alter: sign.startsWith('b') ? -sign.length : sign.length, type }
}

/** How MusicXML says a chord of ours: the nearest kind, what differs as degrees, and our own print as its text. */
export const toXml = (chord: Chord): XmlHarmony => {
  const { recipe } = chord.quality
  const polychord = /^\((.+)\|(.+)\)$/.exec(chord.symbol)
  const symbol = (polychord?.[2] ?? chord.symbol).replace(/\/[A-G][b#]*$/, '')
  const printed = symbol.slice(chord.root.name.length)
  const exact = KIND_OF.get(printed)
  const { third, fifth, seventh, tensions, altered, omitted } = recipe
  const triad = third === 'b3' ? (fifth === 'b5' ? 'dim' : 'm') : fifth === '#5' && seventh === null ? '+' : ''
  const plain =
    seventh === '6'
      ? `${third === 'b3' ? 'm' : ''}6`
      : seventh === 'bb7'
        ? 'dim7'
        : seventh === null
          ? triad
          : seventh === '7'
            ? third === 'b3'
              ? 'mMaj7'
              : 'maj7'
            : third === 'b3'
              ? fifth === 'b5'
                ? 'm7b5'
                : 'm7'
              : '7'
  const base = recipe.family === 'power' ? '5' : plain
  const holdsFifth = { m7b5: 'b5', dim: 'b5', dim7: 'b5', '+': '#5' }[base as 'm7b5'] ?? '5'
  const degrees: XmlDegree[] = []
  if (fifth !== null && fifth !== holdsFifth) degrees.push(degreeOf(fifth, 'alter'))
  if (third === '4' || third === '2') degrees.push(degreeOf(third, 'add'), { value: 3, alter: 0, type: 'subtract' })
  for (const t of altered ? ['b9', '#9', '#11', 'b13'] : tensions) degrees.push(degreeOf(t, 'add'))
  for (const o of omitted) degrees.push({ value: Number(o), alter: 0, type: 'subtract' })
  return {
    root: chord.root.name,
    bass: chord.bass === chord.root ? null : chord.bass.name,
    kind: exact ?? KIND_OF.get(base) ?? 'other',
    text: polychord ? chord.symbol : printed,
    degrees: exact === undefined ? degrees : [],
  }
}

/** A root as MusicXML splits it. */
export const stepAndAlter = (name: string): { readonly step: string; readonly alter: number } => {
  const note = readNote(name, 0)
  return { step: name.charAt(0), alter: note.ok ? note.value.note.alter : 0 }
}
