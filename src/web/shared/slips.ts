import { addDays, type Day } from './days'

/** What is needed of an occurrence or an entry to say when it is. `end` is exclusive. */
export interface Timed {
  start: string
  end: string
  allDay: boolean
  /** A deadline is due, and lasts no time. */
  kind?: 'event' | 'deadline'
}

/** The local day on which it starts: the times carry their own zone's offset. */
export function firstDay(slip: Timed): Day {
  return slip.start.slice(0, 10)
}

/** The last day it touches; what ends at midnight does not touch the day that begins then. */
export function lastDay(slip: Timed): Day {
  const end = slip.end.slice(0, 10)
  if (end === firstDay(slip)) return end
  return slip.allDay || timeOf(slip.end) === '00:00' ? addDays(end, -1) : end
}

export function touches(slip: Timed, day: Day): boolean {
  return firstDay(slip) <= day && day <= lastDay(slip)
}

/** Whether it touches any day from one up to, not including, another. */
export function touchesAny(slip: Timed, from: Day, to: Day): boolean {
  return firstDay(slip) < to && lastDay(slip) >= from
}

export function timeOf(moment: string): string {
  return moment.slice(11, 16)
}
