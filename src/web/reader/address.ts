import type { View } from './edition'

/** What of a page's state stands in its address, so that it can be kept and sent. */
export interface PageState {
  /** Plates of the calendars that concern the reader; null for all. */
  only: string[] | null
  view: View | null
  date: string | null
}

export function readAddress(search = location.search): PageState {
  const query = new URLSearchParams(search)
  const only = query.get('only')
  const date = query.get('date') ?? query.get('month')
  return {
    only: only ? only.split(',').filter(Boolean) : null,
    view: query.get('view') as View | null,
    date: date && /^\d{4}-\d{2}(-\d{2})?$/.test(date) ? date.padEnd(10, '-01') : null,
  }
}

export function writeAddress(state: PageState): string {
  const query = new URLSearchParams(location.search)
  query.delete('month')
  const set = (name: string, value: string | null) => (value ? query.set(name, value) : query.delete(name))
  set('only', state.only?.join(',') ?? null)
  set('view', state.view)
  set('date', state.date)
  // Plates and days need no escaping.
  const text = query.toString().replaceAll('%2C', ',')
  history.replaceState(null, '', text ? `?${text}` : location.pathname)
  return text
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
