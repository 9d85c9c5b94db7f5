import type { Day } from '../shared/days'
import type { View } from './edition'

/** What of a page's state stands in its address, so that it can be kept and sent. */
export interface PageState {
  /** Names of the calendars that concern the reader, as addresses write them; null for all. */
  only: string[] | null
  /** Categories and tags, by their words, any of which an entry has; none for all. */
  about: string[]
  view: View | null
  date: string | null
}

export const nothingAsked: PageState = { only: null, about: [], view: null, date: null }

/** What of the address names an entry's words, as feeds take it too. */
export const aboutOf = (about: string[]): string => about.map((word) => `about=${encodeURIComponent(word)}`).join('&')

/** An address that says so, beside the page. */
export function hrefOf(state: PageState): string {
  const text = (['only', 'view', 'date'] as const)
    .map((name) => [name, name === 'only' ? state.only?.join(',') : state[name]] as const)
    .filter(([, value]) => value)
    .map(([name, value]) => `${name}=${value}`)
  return `?${[...text, aboutOf(state.about)].filter(Boolean).join('&')}`
}

export function readAddress(search = location.search): PageState {
  const query = new URLSearchParams(search)
  const only = query.get('only')
  return {
    only: only ? only.split(',').filter(Boolean) : null,
    about: query.getAll('about').filter(Boolean),
    view: query.get('view') as View | null,
    date: nearestDay(query.get('date') ?? query.get('month') ?? ''),
  }
}

/** The day that somebody means who writes a month or a day that there is not: 2026-13 is December, 2026-02-31 the 28th. Null for what is no date. */
function nearestDay(text: string): Day | null {
  const [, year, month, day] = /^(\d{4})-(\d{1,2})(?:-(\d{1,2}))?$/.exec(text.trim()) ?? []
  if (!year || !month) return null
  const within = (value: string, most: number) => String(Math.min(Math.max(Number(value), 1), most)).padStart(2, '0')
  const nearestMonth = within(month, 12)
  return `${year}-${nearestMonth}-${within(day ?? '1', new Date(Date.UTC(Number(year), Number(nearestMonth), 0)).getUTCDate())}`
}

export function writeAddress(state: PageState): string {
  const query = new URLSearchParams(location.search)
  for (const name of ['month', 'open', 'find']) query.delete(name)
  const set = (name: string, value: string | null) => (value ? query.set(name, value) : query.delete(name))
  set('only', state.only?.join(',') ?? null)
  query.delete('about')
  for (const word of state.about) query.append('about', word)
  set('view', state.view)
  set('date', state.date)
  // Slugs and days need no escaping.
  const text = query.toString().replaceAll('%2C', ',')
  history.replaceState(null, '', text ? `?${text}` : location.pathname)
  return text
}

/** With what a page opens: the front page leads to a subscription, a sheet to print, or something that is looked for. */
export interface Opened {
  panel: 'subscribe' | null
  sheet: 'list' | null
  find: string
}

export const nothingOpened: Opened = { panel: null, sheet: null, find: '' }

export function readOpened(search = location.search): Opened {
  const query = new URLSearchParams(search)
  const open = query.get('open')
  return {
    panel: open === 'subscribe' ? open : null,
    sheet: open === 'list' ? open : null,
    find: query.get('find') ?? '',
  }
}

const keyOf = (base: string) => `valtro-only:${base}`

/** What the reader chose the last time; a frame may not be allowed to remember anything. */
export function recallOnly(base: string): string[] | null {
  try {
    const kept = localStorage.getItem(keyOf(base))
    return kept ? kept.split(',') : null
  } catch {
    return null
  }
}

export function rememberOnly(base: string, only: string[] | null): void {
  try {
    if (only) localStorage.setItem(keyOf(base), only.join(','))
    else localStorage.removeItem(keyOf(base))
  } catch {
    // The choice still stands in the address.
  }
}
