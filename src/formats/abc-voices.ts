/** One voice of a tune as a tune of its own: its name where it has one, and its text. */
export interface AbcVoice {
  readonly name: string
  readonly text: string
}

const FIELD = /^\s*V:\s*([^\s%]+)(.*)$/
const NAMED = /(?:^|\s)(?:name|nm)\s*=\s*(?:"([^"]*)"|(\S+))/
/** How voices are set on staves: no matter for one alone. */
const LAYOUT = /^\s*%%\s*(?:score|staves)\b/

/** What stands after the K: line belongs to voices; before it to all of them. */
const isKey = (line: string): boolean => /^\s*K:/.test(line)

/**
 * The voices of one tune, each as a tune that holds it alone: what stands before the first K: is for all, then each line
 * belongs to the voice named last. Source: the standard of the notation, section 7.
 */
export const abcVoices = (tune: string): readonly AbcVoice[] => {
  const lines = tune.split('\n')
  const end = lines.findIndex(isKey)
  const [head, body] = [lines.slice(0, end + 1), lines.slice(end + 1)]
  const fields = new Map<string, string>()
  const music = new Map<string, string[]>()
  const declare = (id: string, rest: string | null): string[] => {
    if (rest !== null && (rest.trim() !== '' || !fields.has(id))) fields.set(id, rest)
    const own = music.get(id) ?? []
    music.set(id, own)
    return own
  }
  for (const line of head) {
    const found = FIELD.exec(line)
    if (found) declare(found[1] as string, found[2] ?? '')
  }
  let now = [...music.keys()][0] ?? null
  const before: string[] = []
  const put = (piece: string): void => void (now === null ? before : declare(now, null)).push(piece)
  for (const line of body) {
    const found = FIELD.exec(line)
    if (found) {
      now = found[1] as string
      declare(now, found[2] ?? '')
      continue
    }
    let at = 0
    for (;;) {
      const opens = line.indexOf('[V:', at)
      const closes = opens < 0 ? -1 : line.indexOf(']', opens)
      if (closes < 0) break
      const piece = line.slice(at, opens)
      if (piece.trim() !== '') put(piece)
      now =
        line
          .slice(opens + 3, closes)
          .trim()
          .split(/\s/, 1)[0] ?? ''
      at = closes + 1
    }
    const rest = line.slice(at)
    if (at === 0 || rest.trim() !== '') put(rest)
  }
  if (music.size === 0) return [{ name: '', text: tune }]
  const shared = head.filter((line) => !FIELD.test(line) && !LAYOUT.test(line))
  const key = shared.at(-1) ?? ''
  return [...music].map(([id, own], i) => {
    const rest = fields.get(id) ?? ''
    const [, quoted, bare] = NAMED.exec(rest) ?? []
    const lead = i === 0 ? before : []
    return {
      name: quoted ?? bare ?? id,
      text: [...shared.slice(0, -1), `V:${id}${rest}`, key, ...lead, ...own].join('\n'),
    }
  })
}

/** The tunes of a file, each from its X: line; what stands before the first X: is for all of them. */
export const abcTunes = (source: string): readonly string[] => {
  const starts = [...source.matchAll(/^X:/gm)].map((m) => m.index)
  const [first] = starts
  if (first === undefined || starts.length === 1) return [source]
  return starts.map((at, i) => source.slice(0, first) + source.slice(at, starts[i + 1] ?? source.length))
}
