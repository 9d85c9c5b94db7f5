import { addDays, isWeekend, type Day } from './days'
import type { components } from './api.generated'

export type YearSheet = components['schemas']['YearSheetBody']
type Span = YearSheet['breaks'][number]

/** Something that stands on a year's sheet. */
export interface WallEntry {
  id: string
  title: string
  first: Day
  last: Day
  /** As it is said; empty for whole days. */
  time: string
  /** The hue of its band. */
  colour: string
  /** Whose it is, where that has to be said. */
  plates: { code: string; colour: string }[]
  isCancelled: boolean
  isDraft: boolean
  isDue: boolean
  isUncertain: boolean
}

/** What is written on a day: an entry that begins then, or goes on from the month before, or the name of a break or a term. */
export type WallLine = { entry: WallEntry } | { closed: string } | { term: string }

export interface WallDay {
  day: Day
  isWeekend: boolean
  isClosed: boolean
  isInTerm: boolean
  /** The week of its term, on the first day of it that is in the month. */
  week: number | null
  /** What lasts for more than this day, each in its own lane from its first day to its last. */
  bands: (WallEntry | null)[]
  lines: WallLine[]
  /** How many more begin on it than there was room for. */
  more: number
}

export interface Wall {
  months: WallDay[][]
  /** The days that could not hold all that begins on them, with all of it. */
  full: { day: Day; entries: WallEntry[] }[]
  /** How many lanes each month has for what lasts for days. */
  lanes: number[]
}

/** Beside each other on a day; what else lasts then is written on its first day only. */
const MOST_LANES = 4

/** A year by months, its days below each other, each with room for some lines. */
export function wallOf(year: YearSheet, entries: WallEntry[], linesOfDay: number): Wall {
  const shown = entries
    .filter((entry) => entry.first < year.to && entry.last >= year.from)
    .sort((one, other) => order(one).localeCompare(order(other)))
  const laneOf = lanesOf(shown.filter((entry) => entry.last > entry.first))
  const begun = new Map<Day, WallEntry[]>()
  for (const entry of shown) {
    const day = entry.first < year.from ? year.from : entry.first
    begun.set(day, [...(begun.get(day) ?? []), entry])
  }
  const months: WallDay[][] = []
  const full: Wall['full'] = []
  for (let day = year.from; day < year.to; day = addDays(day, 1)) {
    if (day.endsWith('-01')) months.push([])
    const isFirstOfMonth = day.endsWith('-01')
    const beginning = begun.get(day) ?? []
    const going = isFirstOfMonth ? [...laneOf.keys()].filter((one) => one.first < day && one.last >= day && day > year.from) : []
    const names = namesOn(day, year, isFirstOfMonth)
    const room = Math.max(linesOfDay - names.length, 1)
    const own = [...going, ...beginning]
    const written = own.length > room ? own.slice(0, Math.max(room - 1, 0)) : own
    const missing = beginning.filter((entry) => !written.includes(entry))
    if (missing.length > 0) full.push({ day, entries: beginning })
    const bands: (WallEntry | null)[] = []
    for (const [entry, lane] of laneOf)
      if (entry.first <= day && day <= entry.last) {
        while (bands.length <= lane) bands.push(null)
        bands[lane] = entry
      }
    months.at(-1)?.push({
      day,
      isWeekend: isWeekend(day),
      isClosed: year.breaks.some((one) => holds(one, day)),
      isInTerm: year.terms.some((one) => holds(one, day)),
      week: weekOn(day, year, isFirstOfMonth),
      bands,
      lines: [...names, ...written.map((entry) => ({ entry }))],
      more: missing.length,
    })
  }
  const lanes = months.map((days) => Math.max(0, ...days.map(({ bands }) => bands.length)))
  return { months, full, lanes }
}

const holds = (span: Span, day: Day) => span.first <= day && day <= span.last

/** What lasts for days before what does not, then by time. */
const order = (entry: WallEntry) => `${entry.first}${entry.last > entry.first ? 0 : 1}${entry.time}${entry.title}`

/** Puts what lasts for days beside each other where they touch the same day, in as few lanes as can be. */
function lanesOf(several: WallEntry[]): Map<WallEntry, number> {
  const ends: Day[] = []
  const lanes = new Map<WallEntry, number>()
  for (const entry of several) {
    const free = ends.findIndex((end) => end < entry.first)
    const lane = free >= 0 ? free : ends.length
    if (lane >= MOST_LANES) continue
    ends[lane] = entry.last
    lanes.set(entry, lane)
  }
  return lanes
}

function namesOn(day: Day, { breaks, terms }: YearSheet, isFirstOfMonth: boolean): WallLine[] {
  const begins = (span: Span) => span.first === day || (isFirstOfMonth && holds(span, day))
  return [
    ...terms.filter(({ first }) => first === day).map(({ name }) => ({ term: name })),
    ...breaks.filter(begins).map(({ name }) => ({ closed: name })),
  ]
}

/** The week of the term that begins on this day, or goes on at the head of a month; weeks without school have no number. */
function weekOn(day: Day, { terms }: YearSheet, isFirstOfMonth: boolean): number | null {
  for (const term of terms) {
    if (!holds(term, day)) continue
    const index = term.weeks.findIndex((first) => first <= day && day < addDays(first, 7))
    const first = term.weeks[index]
    if (first !== undefined && (day === first || day === term.first || isFirstOfMonth)) return index + 1
  }
  return null
}
