import { strFromU8, unzipSync } from 'fflate'
import { ok, type Result } from '../core/index.ts'
import { type Refusal, refuse } from './assemble.ts'

/** A file by what is in it, and not by its name. A MIDI file has no text. */
export interface OpenedFile {
  readonly kind: 'midi' | 'xml' | 'text'
  readonly text: string
}

const MOST_INSIDE = 10 * 1024 * 1024
const MOST_MEMBERS = 40

/** The score inside a compressed MusicXML file. Members are bounded in count and size, before they are unpacked. */
const scoreInZip = (bytes: Uint8Array): Result<Uint8Array, Refusal> => {
  let members = 0
  let size = 0
  try {
    const found = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        members++
        const wanted = /\.(xml|musicxml)$/i.test(name)
        if (wanted) size += originalSize
        return wanted && members <= MOST_MEMBERS && size <= MOST_INSIDE
      },
    })
    if (members > MOST_MEMBERS || size > MOST_INSIDE) return refuse('The packed file holds too much.')
    const container = found['META-INF/container.xml']
    const named = container && /full-path="([^"]+)"/.exec(decoded(container) ?? '')?.[1]
    const name = named && found[named] ? named : Object.keys(found).find((n) => !n.startsWith('META-INF/'))
    const score = name === undefined ? undefined : found[name]
    return score && score.length <= MOST_INSIDE ? ok(score) : refuse('The packed file holds no score.')
  } catch {
    return refuse('The packed file is damaged.')
  }
}

/** The encodings a file may name for itself that are not found by looking at it. */
const NARROW = /^(?:iso-?8859-1|latin-?1|windows-1252|cp1252|us-ascii)$/i
const DECLARED = /(?:<\?xml[^>]{0,200}?encoding\s*=\s*["']|abc-charset\s+)([\w.-]{1,20})/i
const LOOKED_AT = 4096

/** The encoding of a text: by its mark, by the zeros between its signs, by what it says of itself; else UTF-8. */
const encodingOf = (bytes: Uint8Array): string => {
  const [a, b] = bytes
  if (a === 0xff && b === 0xfe) return 'utf-16le'
  if (a === 0xfe && b === 0xff) return 'utf-16be'
  if (b === 0 && a !== 0) return 'utf-16le'
  if (a === 0 && b !== 0) return 'utf-16be'
  const [, declared = ''] = DECLARED.exec(strFromU8(bytes.subarray(0, LOOKED_AT), true)) ?? []
  return NARROW.test(declared) ? 'windows-1252' : 'utf-8'
}

const decoded = (bytes: Uint8Array): string | null => {
  try {
    return new TextDecoder(encodingOf(bytes), { fatal: true }).decode(bytes).replace(/^\uFEFF/, '')
  } catch {
    return null
  }
}

const begins = (bytes: Uint8Array, signs: string): boolean => strFromU8(bytes.subarray(0, signs.length), true) === signs

/** Whether a text is a tune: a K: line is in it. */
export const isAbc = (text: string): boolean => /^[ \t]*K:/m.test(text)

/** Opens a file of any kind that is read here: packed or not, in whatever encoding it names. */
export const openFile = (bytes: Uint8Array): Result<OpenedFile, Refusal> => {
  if (bytes.length === 0) return refuse('The file is empty.')
  if (begins(bytes, 'MThd')) return ok({ kind: 'midi', text: '' })
  const score = begins(bytes, 'PK') ? scoreInZip(bytes) : ok(bytes)
  if (!score.ok) return score
  const text = decoded(score.value)
  if (text === null) return refuse('The file is not text in UTF-8 or UTF-16, nor a packed score.')
  return ok({ kind: /^\s*</.test(text) ? 'xml' : 'text', text })
}
