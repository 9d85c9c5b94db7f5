import { addDays, type Day } from '../../shared/days'
import { firstDay, lastDay } from '../../shared/slips'
import type { Occurrence } from '../types'

/** What lasts for more than a column, as one bar across the columns that it touches. */
export interface Bar {
  occurrence: Occurrence
  /** The first and the last of its columns. */
  from: number
  to: number
  /** The first of its days that is in sight. */
  day: Day
  comesFromBefore: boolean
  goesOnAfter: boolean
}

/** What lasts across several columns, in as few rows as can be; the rest stands in its column. */
export function barsOf(occurrences: Occurrence[], columns: Day[], daysOfColumn = 1): { rows: Bar[][]; rest: Occurrence[] } {
  const start = columns[0]
  const last = columns.at(-1)
  if (start === undefined || last === undefined) return { rows: [], rest: occurrences }
  const end = addDays(last, daysOfColumn)
  const columnOf = (day: Day) => columns.findLastIndex((first) => first <= day)
  const rows: Bar[][] = []
  const rest: Occurrence[] = []
  for (const occurrence of occurrences) {
    const [begins, ends] = [firstDay(occurrence), lastDay(occurrence)]
    const day = begins < start ? start : begins
    const from = columnOf(day)
    const to = columnOf(ends >= end ? addDays(end, -1) : ends)
    if (begins >= end || ends < start || to <= from) {
      rest.push(occurrence)
      continue
    }
    const bar = { occurrence, from, to, day, comesFromBefore: begins < start, goesOnAfter: ends >= end }
    const row = rows.find((bars) => bars.every((other) => other.to < from || other.from > to))
    if (row) row.push(bar)
    else rows.push([bar])
  }
  for (const row of rows) row.sort((one, other) => one.from - other.from)
  return { rows, rest }
}

/** The lines of a day of a month: one beside its number, then the rows of bars, then the rest, as far as there is room. */
export function linesOn(onDay: Occurrence[], bars: (Bar | null)[], room: number) {
  const inBars = new Set(bars.flatMap((bar) => (bar ? [bar.occurrence] : [])))
  const single = onDay.filter((one) => !inBars.has(one))
  const rows = bars.slice(0, bars.findLastIndex((bar) => bar !== null) + 1)
  const free = room - rows.filter((bar) => bar !== null).length
  const shown = single.length > free ? single.slice(0, free - 1) : single
  // A row without a bar on this day has room for something else.
  const others = [...shown]
  const lines: (Occurrence | Bar | null)[] =
    rows.length === 0 ? shown : [others.shift() ?? null, ...rows.map((bar) => bar ?? others.shift() ?? null), ...others]
  return { lines, left: single.length - shown.length }
}

/** The day that lies under the pointer, whatever lies above it. */
export function dayUnder({ clientX, clientY }: { clientX: number; clientY: number }): Day | undefined {
  for (const element of document.elementsFromPoint(clientX, clientY))
    if (element instanceof HTMLElement && element.dataset.day) return element.dataset.day
  return undefined
}
