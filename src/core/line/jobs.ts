import { toAscii } from '../pitch/glyphs.ts'
import type { Cell } from './cells.ts'
import type { HeardNote } from './heard.ts'
import type { Melodic } from './melodic.ts'
import { coverOf } from './spans.ts'

/** Cells that say more of a note than what it does to its neighbour: within them a half step is part of the shape. */
const SPEAKING = new Set([
  'pentatonic',
  'symmetric',
  'triad',
  'seventh',
  'ninth',
  'quartal',
  'blues',
  'pair',
  'degrees',
  'fourths',
  'thirds',
])
const LEADING = new Set(['enclosure', 'anticipation', 'delayed resolution', 'double chromatic'])

const cellJob = (cell: Cell, n: HeardNote): string | null => {
  const { overlay, how } = cell
  if (!overlay) return null
  const name = overlay.name.replace(/ arpeggio$/, '')
  switch (how) {
    case 'pair':
      return `part of triad pair ${overlay.groups?.map((g) => g.name).join('/')}`
    case 'chord':
      return `arpeggio of ${name}`
    case 'home':
      return `home scale ${name}`
    case 'triad':
    case 'seventh':
    case 'ninth':
      return `arpeggio of ${name}`
    case 'pentatonic':
    case 'blues':
      return `pentatonic ${name}`
    case 'degrees':
      return `cell ${name}`
    case 'fourths':
      return overlay.material ? `fourths through ${name}` : `fourths ${name}`
    case 'thirds':
      return `thirds through ${name}`
    case 'symmetric': {
      const root = n.sounding?.place?.chord.root.pc
      const other = overlay.material?.name === 'whole tone' && root !== undefined && !((overlay.set >> root) & 1)
      return other ? 'the other whole-tone set' : `symmetric run ${name}`
    }
    default:
      return `scale ${name}`
  }
}

/** What each note does in the line, in words, ASCII: what leads somewhere first, then the shape it is part of. */
export const jobsOf = (
  notes: readonly HeardNote[],
  melodic: readonly (Melodic | null)[],
  cells: readonly Cell[],
): readonly string[] => {
  const cover = coverOf(cells, notes.length)
  return notes.map((n, i) => {
    const own = melodic[i] ?? null
    const cell = cover[i]
    if (own && LEADING.has(own.kind)) return own.kind
    const inCell = cell?.overlay && ((cell.overlay.set >> (n.pitch % 12)) & 1) === 1
    const words = cell && inCell ? cellJob(cell, n) : null
    if (words && cell && SPEAKING.has(cell.how)) return words
    if (own) return own.kind
    return words ?? (n.role === null ? 'no chord' : n.role === 'chord' ? 'chord tone' : toAscii(n.role))
  })
}
