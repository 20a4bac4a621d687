import { $place, type FigureId, go } from './place.ts'

export const showFigure = (figure: FigureId): void => go({ figure })

/** Shows it, or goes back to the slope where it is shown already. */
export const toggleFigure = (figure: FigureId): void => showFigure($place.get()?.figure === figure ? 'slope' : figure)
