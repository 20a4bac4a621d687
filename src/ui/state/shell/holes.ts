import { familyOf, MATERIALS, nameOn, type PracticeFamily } from '../../../core/index.ts'
import { go } from '../address/address.ts'
import { say } from '../page/notices.ts'
import { $items, itemFor } from '../practice/items.ts'

/** The first of a family over the dominant on a key, where nothing of it is practised yet. */
const firstOf = (family: PracticeFamily, key: string): { readonly name: string; readonly overlay: string } | null => {
  if (family === 'pair') return { name: 'A pair of major triads', overlay: `${key} & ${key}+` }
  const material = MATERIALS.find((m) => m.family === family)
  return material ? { name: nameOn(key, material), overlay: nameOn(key, material) } : null
}

/** Makes today's item of a hole in the coverage: an item of that family in that key, on the player. */
export const fillHole = async (family: PracticeFamily, key: string): Promise<void> => {
  const known = $items.get().find((i) => familyOf(i.of) === family)
  if (known) return go({ view: 'player', item: known.id, inKey: key })
  const first = firstOf(family, key)
  if (!first) return say('Make one first: press p on a route or a line.')
  const chord = `${key}7`
  const kind = family === 'pair' ? 'pair' : 'overlay'
  const item = await itemFor(`${first.name} over ${chord}`, { kind, overlay: first.overlay, chord })
  go({ view: 'player', item, inKey: key })
}
