import { $address, go } from '../address/address.ts'
import type { FigureId } from '../address/parts/desk.ts'

export const showFigure = (figure: FigureId): void => go({ figure })

/** Shows it, or goes back to the slope where it is shown already. */
export const toggleFigure = (figure: FigureId): void => showFigure($address.get()?.figure === figure ? 'slope' : figure)
