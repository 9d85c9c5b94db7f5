import { createContext, useContext } from 'react'
import type { Day } from '../shared/days'
import type { Addresses, Edition, Entry, Source, View } from './edition'
import type { Speech } from './speech'

/** What every part of a reading page needs to know. */
export interface Page {
  edition: Edition
  addresses: Addresses
  speech: Speech
  today: string
  /** The reader's own zone; null until that is known. */
  readersZone: string | null
  /** An address that shows something else, also without a script. */
  linkTo: (next: { view?: View; date?: Day }) => string
  /** The script has taken the page over. */
  isAlive: boolean
  /** Where details stand open, by spot. */
  open: string | null
  onOpen: (spot: string | null) => void
  /** How entries are drawn on paper: without anything to press. */
  isSheet?: boolean
}

export const PageContext = createContext<Page | null>(null)

export function usePage(): Page {
  const page = useContext(PageContext)
  if (!page) throw new Error('A part of a reading page stands outside of one.')
  return page
}

export function sourcesOf(entry: Entry, edition: Edition): Source[] {
  return edition.sources.filter((source) => entry.plates.includes(source.plate))
}

/** One of the places where an entry stands: it may be on several days, under several headings, and among what was found. */
export function spotOf(entry: Entry, where: string): string {
  return `${entry.id} ${where}`
}

/** Where the entry's own page is; null where it has none. */
export function pageOfEntry(entry: Entry, addresses: Addresses): string | null {
  return entry.hasPage && addresses.page ? `${addresses.page}/entries/${entry.id}` : null
}
