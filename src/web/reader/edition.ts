import { addMonths, type Month } from '../shared/days'
import type { Timed } from '../shared/slips'

export interface Edition {
  name: string
  description: string
  organisation: string
  zone: string
  locale: string
  firstDayOfWeek: number
  plate: string
  colour: string
  page: string
  feed: string
  webcal: string
  /** It tells when it changes; a preview on the desk does not. */
  isLive: boolean
}

export interface Entry extends Timed {
  id: string
  title: string
  place: string
  /** HTML, sanitised by the server when it was saved. */
  description: string
  state: 'live' | 'cancelled'
  plate: string
  colour: string
  /** The same on the event's own clock, where it is not the edition's. */
  own: { zone: string; start: string; end: string } | null
  links: { label: string; url: string }[]
  files: { name: string; type: string; size: number; address: string }[]
  contact: string
}

export interface MonthData {
  month: Month
  from: string
  to: string
  edition: Edition
  entries: Entry[]
}

/** What stands in the page's first response. */
export interface PageData {
  version: string
  months: MonthData[]
}

export type Months = ReadonlyMap<Month, MonthData>

export function readPageData(): PageData {
  return JSON.parse(document.getElementById('edition-data')?.textContent ?? '') as PageData
}

/** The edition was closed, or its address is not right any more. */
export class Closed extends Error {}

/** Where the edition is on its own origin. */
export function pathOf(edition: Edition): string {
  return new URL(edition.page, location.href).pathname
}

export async function fetchMonth(edition: Edition, month: Month): Promise<MonthData> {
  const address = `${pathOf(edition)}.json?month=${month}`
  // Always asks whether the copy is still right; the answer is usually that it is.
  const response = await fetch(address, { cache: 'no-cache' })
  if (response.status === 404 || response.status === 410) throw new Closed()
  if (!response.ok) throw new Error(`The month could not be fetched (${response.status}).`)
  return (await response.json()) as MonthData
}

/** The entries of some months, each once, in order. */
export function entriesOf(months: Months, wanted: Month[]): Entry[] {
  const seen = new Map<string, Entry>()
  for (const month of wanted) for (const entry of months.get(month)?.entries ?? []) seen.set(entry.id, entry)
  return [...seen.values()]
}

/** The list shows the month that is open and the one after it. */
export function monthsOfList(month: Month): Month[] {
  return [month, addMonths(month, 1)]
}
