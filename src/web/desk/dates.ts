import type { Calendar, Occurrence } from './types'

/** The screen of a date. */
export function addressOf(occurrence: Occurrence): string {
  return `/events/${occurrence.eventId}?date=${occurrence.recurrenceId}`
}

/** Those of some calendars that show it, its home first. */
export function shownOn(occurrence: Occurrence, calendarOf: Map<string, Calendar>): Calendar[] {
  return [occurrence.calendarId, ...occurrence.alsoOn].flatMap((id) => calendarOf.get(id) ?? [])
}
