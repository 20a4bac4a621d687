import { differenceInCalendarDays } from 'date-fns'

/** When something is due or was last, in days from today. */
export const dayWords = (at: string | null, now = new Date()): string => {
  if (at === null) return 'never'
  const days = differenceInCalendarDays(new Date(at), now)
  if (days === 0) return 'today'
  if (days === 1) return 'tomorrow'
  if (days === -1) return 'yesterday'
  return days > 0 ? `in ${days} days` : `${-days} days ago`
}
