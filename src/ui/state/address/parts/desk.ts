import { type Codec, choice, type Part, partOf, text } from '../codec.ts'
import { type Filters, readFilters, writeFilters } from '../filters.ts'

/** What takes its turn in the picture's place. */
export const FIGURES = [
  'slope',
  'keyboard',
  'fretboard',
  'staff',
  'table',
  'why',
  'compare',
  'elsewhere',
  'chord',
] as const
export type FigureId = (typeof FIGURES)[number]

export const TRAY_HOLDS = 4

interface Laid {
  readonly over: string | null
  readonly sounds: string | null
  /** A home scale the player put first on this chord. */
  readonly home: string | null
  readonly figure: FigureId
}

/** What is laid over the chord, what is laid beside it, and what is wanted of others. Names in concert pitch. */
export interface DeskPart extends Laid {
  /** Overlays laid side by side, at most four. */
  readonly tray: readonly string[]
  readonly filters: Filters
}

const figure: Codec<FigureId> = choice(FIGURES, 'slope')
const LAID = partOf<Laid>({ over: text, sounds: text, home: text, figure })

export const DESK: Part<DeskPart> = {
  read: (query) => ({
    ...LAID.read(query),
    tray: query.getAll('tray').slice(0, TRAY_HOLDS),
    filters: readFilters(query),
  }),
  write: (desk, query) => {
    LAID.write(desk, query)
    for (const name of desk.tray) query.append('tray', name)
    writeFilters(desk.filters, query)
  },
}
