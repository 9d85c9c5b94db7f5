import { addDays, monthOf, weekOf, type Day } from '../shared/days'
import { firstDay, lastDay } from '../shared/slips'
import type { Edition, Entry } from './edition'

/** An entry on one of its days. */
export interface Dated {
  day: Day
  entry: Entry
}

export interface Group {
  key: string
  /** What kind of thing the key names. */
  by: Edition['look']['grouping']
  lines: Dated[]
}

/** The days that an entry stands on, within a span. What is shown on its first day only stands there, or on the span's first day while it goes on. */
export function daysOf(entry: Entry, from: Day, to: Day, several: Edition['look']['severalDays']): Day[] {
  const first = firstDay(entry) < from ? from : firstDay(entry)
  const last = lastDay(entry) >= to ? addDays(to, -1) : lastDay(entry)
  if (last < first) return []
  if (several === 'first') return [first]
  const days: Day[] = []
  for (let day = first; day <= last; day = addDays(day, 1)) days.push(day)
  return days
}

/** In a list a break stands once, with until when it lasts: whoever reads down it has no use for a line of every closed day. */
export const severalInList = (entry: Entry, edition: Edition): Edition['look']['severalDays'] =>
  entry.isBreak ? 'first' : edition.look.severalDays

/** The lines of a list: in order of time, under the headings that the edition wants. */
export function groupsOf(entries: Entry[], from: Day, to: Day, edition: Edition): Group[] {
  const { grouping } = edition.look
  const lines = entries
    .flatMap((entry) => daysOf(entry, from, to, severalInList(entry, edition)).map((day) => ({ day, entry })))
    .sort((one, other) => (one.day < other.day ? -1 : one.day > other.day ? 1 : 0))
  const groups = new Map<string, Group>()
  for (const line of lines)
    for (const key of keysOf(line, edition)) {
      const group = groups.get(key) ?? { key, by: grouping, lines: [] }
      group.lines.push(line)
      groups.set(key, group)
    }
  const made = [...groups.values()]
  return grouping === 'calendar' || grouping === 'category' ? made.sort((one, other) => one.key.localeCompare(other.key)) : made
}

function keysOf({ day, entry }: Dated, edition: Edition): string[] {
  switch (edition.look.grouping) {
    case 'day':
      return [day]
    case 'week':
      return [weekOf(day, edition.firstDayOfWeek)]
    case 'month':
      return [monthOf(day)]
    case 'calendar':
      // What is on two calendars concerns the readers of both.
      return entry.plates.length > 0 ? entry.plates : ['']
    case 'category':
      return [entry.category?.name ?? '']
    default:
      return ['']
  }
}
