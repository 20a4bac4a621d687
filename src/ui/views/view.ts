import type { Desk } from '../stores/desk.ts'
import type { Kept } from '../stores/kept.ts'
import type { Place } from '../stores/place.ts'

/** What every view is handed. */
export interface ViewProps {
  readonly place: Place
  readonly kept: Kept
  readonly desk: Desk
}
