import type { components } from '../shared/api.generated'
import type { Day } from '../shared/days'
import { keptAtOf } from './kept'

type Schemas = components['schemas']

export type View = Schemas['EditionView']
export type Source = Schemas['SourceBody']
export type Palette = Schemas['PaletteBody']
export type Piece = Schemas['Piece']
export type Look = Schemas['LookBody']
export type Edition = Schemas['EditionBody']
export type Picture = Schemas['PictureBody']
export type File = Schemas['FileBody']
export type Entry = Schemas['EntryBody']
export type Part = Schemas['MonthBody']
export type Change = Schemas['ChangeBody']
export type ChangeList = Schemas['ChangesBody']

/** A month, or "all". */
export type PartName = Part['month']

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

/**
 * Asks for something below the page; always whether the copy is still right, which it usually is.
 * @param onKept Told where there was no network, and what comes was kept: since when.
 */
export async function fetchBelow<T>(base: string, rest: string, onKept?: (at: string) => void): Promise<T> {
  const response = await fetch(base + rest, { cache: 'no-cache' })
  if (response.status === 404 || response.status === 410) throw new Closed()
  if (!response.ok) throw new Error(`${rest} could not be fetched (${response.status}).`)
  const at = keptAtOf(response)
  if (at) onKept?.(at)
  return (await response.json()) as T
}

/** The entries of some parts, each once, in order. */
export function entriesOf(parts: Parts, wanted: PartName[]): Entry[] {
  const seen = new Map<string, Entry>()
  for (const part of wanted) for (const entry of parts.get(part)?.entries ?? []) seen.set(entry.id, entry)
  return [...seen.values()]
}
