import type { Day, Month } from '../shared/days'
import type { Timed } from '../shared/slips'

export type View = 'month' | 'week' | 'day' | 'list' | 'cards' | 'smallMonth'

export interface Source {
  plate: string
  name: string
  colour: string
  canBeChosen: boolean
  /** By which addresses of narrowed pages and feeds name it. */
  slug: string
  /** What else such addresses may call it. */
  named: string[]
}

export interface Palette {
  page: string
  grid: string
  busy: string
  empty: string
  today: string
  text: string
  soft: string
  accent: string
  onAccent: string
}

export type Piece = 'plate' | 'calendar' | 'title' | 'place' | 'category' | 'date' | 'time'

export interface Look {
  view: View
  views: View[]
  navigation: boolean
  legend: boolean
  zoneLabel: boolean
  clock: 'reader' | 'twelve' | 'twentyFour'
  /** Empty for the reader's own. */
  language: string
  light: Palette
  dark: Palette
  dates: 'long' | 'short' | 'numeric'
  size: 'small' | 'normal' | 'large'
  density: 'airy' | 'normal' | 'tight'
  corner: 'square' | 'soft' | 'round'
  scheme: 'light' | 'dark' | 'reader'
  onEntry: 'details' | 'page' | 'firstLink' | 'nothing'
  emptyText: string
  failedText: string
  grouping: 'time' | 'day' | 'week' | 'month' | 'calendar' | 'category'
  severalDays: 'each' | 'first'
  line: { piece: Piece | null; text: string }[]
}

export interface Edition {
  name: string
  description: string
  organisation: string
  zone: string
  locale: string
  firstDayOfWeek: number
  sources: Source[]
  look: Look
  /** The first day it is about, and the first day after it; null where it is open. */
  from: Day | null
  to: Day | null
  /** All its entries are one part. */
  isWhole: boolean
  showsPlates: boolean
  /** It tells when it changes; a preview on the desk does not. */
  isLive: boolean
}

export interface File {
  name: string
  type: string
  size: number
  /** Below the page. */
  address: string
}

export interface Entry extends Timed {
  id: string
  title: string
  place: string
  /** HTML, sanitised by the server when it was saved. */
  description: string
  state: 'live' | 'cancelled' | 'draft' | 'waiting'
  plates: string[]
  category: { name: string; colour: string } | null
  /** The same on the event's own clock, where it is not the edition's. */
  own: { zone: string; start: string; end: string } | null
  links: { label: string; url: string }[]
  files: File[]
  picture: File | null
  contact: string
  hasPage: boolean
  isBreak: boolean
}

/** A month, or "all". */
export type PartName = Month | 'all'

export interface Part {
  month: PartName
  from: Day
  to: Day
  edition: Edition
  entries: Entry[]
}

export interface Change {
  change: 'moved' | 'relocated' | 'cancelled' | 'takesPlace' | 'new' | 'removed'
  at: string
  entry: Entry
  wasStart: string
  wasEnd: string
  wasPlace: string
  more: number
}

/** Whom an address names: by its slug, or by a plate or slug that it had. Whom a name meant first it means for ever. */
export function sourceNamed(edition: Edition, name: string): Source | undefined {
  const isIt = (one: string) => one.toLowerCase() === name.trim().toLowerCase()
  return (
    edition.sources.find((source) => source.named.some(isIt)) ??
    edition.sources.find((source) => isIt(source.slug) || isIt(source.plate))
  )
}

/** How addresses name the calendars of some plates. */
export function slugsOf(edition: Edition, plates: string[]): string[] {
  return edition.sources.filter((source) => plates.includes(source.plate)).map((source) => source.slug)
}

export interface ChangeList {
  changes: Change[]
  /** More has changed than is told. */
  holdsBack: boolean
}

export interface Addresses {
  /** The page's path on its own origin. */
  base: string
  /** Absolute, to be given away; empty for a preview. */
  page: string
  feed: string
  webcal: string
  atom: string
}

/** As what the page was painted, before anything of the reader's own was known. */
export interface Painted {
  view: View
  day: Day
  today: Day
  /** The languages of the reader that the server heeded: none where the edition has its own. */
  languages: string[]
}

/** What stands in the page's first response. */
export interface PageData {
  version: string
  addresses: Addresses
  months: Part[]
  painted: Painted
}

export type Parts = ReadonlyMap<PartName, Part>

export function readPageData(): PageData {
  return JSON.parse(document.getElementById('edition-data')?.textContent ?? '') as PageData
}

/** The edition was closed, or its address is not right any more. */
export class Closed extends Error {}

/** Asks for something below the page; always whether the copy is still right, which it usually is. */
export async function fetchBelow<T>(base: string, rest: string): Promise<T> {
  const response = await fetch(base + rest, { cache: 'no-cache' })
  if (response.status === 404 || response.status === 410) throw new Closed()
  if (!response.ok) throw new Error(`${rest} could not be fetched (${response.status}).`)
  return (await response.json()) as T
}

/** The entries of some parts, each once, in order. */
export function entriesOf(parts: Parts, wanted: PartName[]): Entry[] {
  const seen = new Map<string, Entry>()
  for (const part of wanted) for (const entry of parts.get(part)?.entries ?? []) seen.set(entry.id, entry)
  return [...seen.values()]
}
