import type { NoteReading } from '../../core/index.ts'

/** The outline of a note's tab tells its role. `lean` is the side of its best exit. */
export interface TabLook {
  readonly shape: 'flat' | 'arched' | 'slanted' | 'hooked' | 'torn'
  readonly doubled: boolean
  readonly bitten: boolean
  readonly lean: 'left' | 'right'
}

/** The outline of each role. */
export const ROLE_SHAPES = {
  chord: 'flat',
  extension: 'arched',
  altered: 'slanted',
  suspension: 'hooked',
  outside: 'torn',
} as const

/** How a note's tab looks. A note that is held or has no way out leans right. */
export const tabLook = (n: NoteReading): TabLook => ({
  shape: ROLE_SHAPES[n.role],
  doubled: n.guide,
  bitten: n.rub !== null,
  lean: n.exits[0]?.how.endsWith('down') ? 'left' : 'right',
})

const HOOK = { width: 5, drop: 15, thick: 4 }

/** Path data of a tab whose box has its top left corner at x, y. All in the figure's units. */
export const tabPath = ({ shape, bitten, lean }: TabLook, x: number, y: number, w: number, h: number): string => {
  const right = x + w
  const bottom = y + h
  const rise = h * 0.2
  const bite = bitten ? `L${x},${y + h * 0.62} L${x + w * 0.16},${y + h * 0.5} L${x},${y + h * 0.38}` : ''
  const close = `L${right},${bottom} L${x},${bottom} ${bite} Z`
  switch (shape) {
    case 'flat':
      return `M${x},${y} L${right},${y} ${close}`
    case 'arched':
      return `M${x},${y + rise} Q${x + w / 2},${y - rise} ${right},${y + rise} ${close}`
    case 'slanted':
      return lean === 'left' ? `M${x},${y} L${right},${y + rise} ${close}` : `M${x},${y + rise} L${right},${y} ${close}`
    case 'hooked': {
      const edge = right + HOOK.width
      return `M${x},${y} L${edge},${y} L${edge},${y + HOOK.drop} L${edge - HOOK.thick},${y + HOOK.drop} L${edge - HOOK.thick},${y + HOOK.thick} L${right},${y + HOOK.thick} ${close}`
    }
    case 'torn': {
      const teeth = 4
      const step = w / teeth
      const zigzag = Array.from(
        { length: teeth },
        (_, i) => `L${x + step * (i + 0.5)},${y + rise} L${x + step * (i + 1)},${y}`,
      )
      return `M${x},${y} ${zigzag.join(' ')} ${close}`
    }
  }
}
