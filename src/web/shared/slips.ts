import { addDays, daysBetween, sayDay, type Day } from './days'

/** What is needed of an occurrence or an entry to say when it is. `end` is exclusive. */
export interface Timed {
  start: string
  end: string
  allDay: boolean
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

export function timeOf(moment: string): string {
  return moment.slice(11, 16)
}

/** "14:00–15:30", "all day", "08:00" for what has no length; on its later days, where it has got to. */
export function sayTime(slip: Timed, day: Day = firstDay(slip)): string {
  const days = daysBetween(firstDay(slip), lastDay(slip)) + 1
  if (slip.allDay) return days === 1 ? 'all day' : `day ${daysBetween(firstDay(slip), day) + 1} of ${days}`
  if (day !== firstDay(slip)) return day === lastDay(slip) ? `until ${timeOf(slip.end)}` : 'all day'
  if (slip.start === slip.end) return timeOf(slip.start)
  return days === 1 ? `${timeOf(slip.start)}–${timeOf(slip.end)}` : `from ${timeOf(slip.start)}`
}

/** "14:00" where there is room for no more. */
export function sayTimeShort(slip: Timed, day: Day): string {
  if (slip.allDay) return 'all day'
  return day === firstDay(slip) ? timeOf(slip.start) : 'on'
}

/** The whole span in words, for details. */
export function sayWhen(slip: Timed, locale: string): string {
  const say = (day: Day) => sayDay(day, locale, { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' })
  const [first, last] = [firstDay(slip), lastDay(slip)]
  if (slip.allDay) return first === last ? `${say(first)}, all day` : `${say(first)} to ${say(last)}`
  if (slip.start === slip.end) return `${say(first)}, ${timeOf(slip.start)}`
  return first === slip.end.slice(0, 10)
    ? `${say(first)}, ${timeOf(slip.start)} to ${timeOf(slip.end)}`
    : `${say(first)}, ${timeOf(slip.start)} to ${say(slip.end.slice(0, 10))}, ${timeOf(slip.end)}`
}
