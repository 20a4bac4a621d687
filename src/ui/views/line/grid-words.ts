import type { Grid } from '../../../core/index.ts'

export const GRID_WORDS: Readonly<Record<Grid, string>> = {
  nearest: 'each beat by whichever is nearer, swung eighths written even',
  sixteenths: 'sixteenths',
  triplets: 'eighth triplets',
  none: 'as it was played',
}
