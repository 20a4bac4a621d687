import type { Note } from '../pitch/note.ts'
import type { Recipe } from './chord.ts'

/** The highest extension whose lower ones are natural too: 13 holds a 9, 11 holds a 9. Tensions it covers are dropped. */
const extension = (tensions: readonly string[]): { number: string; rest: readonly string[] } => {
  const nine = tensions.includes('9')
  for (const top of ['13', '11'] as const)
    if (nine && tensions.includes(top)) return { number: top, rest: tensions.filter((t) => t !== '9' && t !== top) }
  return nine ? { number: '9', rest: tensions.filter((t) => t !== '9') } : { number: '7', rest: tensions }
}

const bracket = (items: readonly string[]): string => (items.length ? `(${items.join(',')})` : '')
const omissions = (r: Recipe): readonly string[] => r.omitted.map((o) => `no${o}`)

const withSeventh = (r: Recipe): string => {
  const { number, rest } = extension(r.tensions)
  const tail = (items: readonly string[]) => bracket([...items, ...omissions(r)])
  if (r.altered) return `7alt${tail(r.tensions)}`
  const fifth = r.fifth === 'b5' || r.fifth === '#5' ? r.fifth : ''
  switch (r.family) {
    case 'suspended':
      return `${r.seventh === '7' ? 'maj' : ''}${number}sus${r.third}${fifth}${tail(rest)}`
    case 'half-diminished':
      return `m${number}b5${tail(rest)}`
    case 'diminished':
      return r.seventh === 'bb7'
        ? `dim7${tail(r.tensions)}`
        : `dim(${['maj7', ...r.tensions, ...omissions(r)].join(',')})`
    case 'minor':
      return `m${r.seventh === '7' ? 'Maj' : ''}${number}${fifth}${tail(rest)}`
    default:
      return `${r.seventh === '7' ? 'maj' : ''}${number}${fifth}${tail(rest)}`
  }
}

const withSixth = (r: Recipe): string => {
  const nine = r.tensions.includes('9')
  const sus = r.family === 'suspended' ? `sus${r.third}` : ''
  const fifth = r.fifth === 'b5' || r.fifth === '#5' ? r.fifth : ''
  const rest = [...r.tensions.filter((t) => t !== '9'), ...omissions(r)]
  return `${r.family === 'minor' ? 'm' : ''}6${nine ? '/9' : ''}${sus}${fifth}${bracket(rest)}`
}

const TRIADS: Readonly<Partial<Record<Recipe['family'], string>>> = {
  minor: 'm',
  diminished: 'dim',
  augmented: '+',
  power: '5',
}

const triad = (r: Recipe): string => {
  const base = r.family === 'suspended' ? `sus${r.third}` : (TRIADS[r.family] ?? '')
  const plain = { major: '5', suspended: '5', power: '5', minor: '5', diminished: 'b5', augmented: '#5' } as const
  const fifth = r.fifth !== null && r.fifth !== plain[r.family as keyof typeof plain] ? [r.fifth] : []
  const added = r.tensions.map((t) => `add${t}`)
  const items = [...fifth, ...added, ...omissions(r)]
  return items.length === 1 && added.length === 1 ? base + items[0] : base + bracket(items)
}

/** What stands after the root, ASCII, stated tensions in brackets: `7(b9,13)`, `m7b5`. */
export const printQuality = (recipe: Recipe): string =>
  recipe.seventh === '6' ? withSixth(recipe) : recipe.seventh ? withSeventh(recipe) : triad(recipe)

/** The one printed form of a chord: `Eb7(b9,13)`, `Cm7b5`, `F/A`. */
export const printSymbol = (root: Note, bass: Note, recipe: Recipe): string =>
  root.name + printQuality(recipe) + (bass === root ? '' : `/${bass.name}`)
