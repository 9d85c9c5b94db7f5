import { useMemo, useState, useSyncExternalStore } from 'react'
import { savedOn } from '../lastPlan'
import type { Calendar, Group } from '../types'
import { t } from './words'

/** With more of them, lanes are only as high as their slips. */
const MANY = 12
/** With more of them, they stand in groups that can be folded. */
const TOO_MANY_FOR_ONE = 20
/** As many lanes stand open where nobody has said which. */
const OPEN_AT_FIRST = 14

export interface LaneGroup {
  /** Empty where there are no groups. */
  name: string
  calendars: Calendar[]
}

export const areMany = (calendars: Calendar[]) => calendars.length > MANY

/** Each calendar once: in the smallest group that holds it, and those that none holds last. */
export function laneGroups(calendars: Calendar[], groups: Group[]): LaneGroup[] {
  if (calendars.length <= TOO_MANY_FOR_ONE) return [{ name: '', calendars }]
  const bySize = [...groups].sort((one, other) => one.calendars.length - other.calendars.length)
  const found = new Map<string, Calendar[]>()
  for (const calendar of calendars) {
    const name = bySize.find((group) => group.calendars.includes(calendar.id))?.name ?? ''
    found.set(name, [...(found.get(name) ?? []), calendar])
  }
  // A heading over one lane says nothing that the lane does not.
  const named = [...found].filter(([name, those]) => name !== '' && those.length > 1)
  if (named.length === 0) return [{ name: '', calendars }]
  const rest = calendars.filter((calendar) => !named.some(([, those]) => those.includes(calendar)))
  const sections = named.map(([name, those]) => ({ name, calendars: those }))
  return rest.length > 0 ? [...sections, { name: t('otherCalendars'), calendars: rest }] : sections
}

/** The first ones, until there are as many lanes as a screen has room for. */
export function openAtFirst(groups: LaneGroup[]): Set<string> {
  const open = new Set<string>()
  let lanes = 0
  for (const group of groups) {
    lanes += group.calendars.length
    if (open.size > 0 && lanes > OPEN_AT_FIRST) break
    open.add(group.name)
  }
  return open
}

/** Which groups are open: as it was left in this browser, or as the view says that was opened. */
export function useOpenGroups(organisation: string, groups: LaneGroup[]) {
  const folds = useSyncExternalStore(listen, () => foldsOf(organisation))
  const said = useMemo(() => read(folds), [folds])
  const first = openAtFirst(groups)
  // What was just saved is in sight, unless its group is folded again.
  const [ofSaved, setOfSaved] = useState(savedOn)
  const holdsSaved = (name: string) =>
    ofSaved !== null && groups.some((group) => group.name === name && group.calendars.some(({ id }) => id === ofSaved))
  const isOpen = (name: string) => holdsSaved(name) || (said[name] ?? first.has(name))
  const put = (names: string[], open: boolean) => {
    putFolds(organisation, JSON.stringify({ ...said, ...Object.fromEntries(names.map((name) => [name, open])) }))
    if (!open && names.some(holdsSaved)) setOfSaved(null)
  }
  return { isOpen, put }
}

const key = (organisation: string) => `valtro.lanes.${organisation}`

/** Of a browser that keeps nothing, for as long as the page stays. */
const here = new Map<string, string>()
const listeners = new Set<() => void>()

function listen(listener: () => void) {
  listeners.add(listener)
  return () => void listeners.delete(listener)
}

/** Which groups were opened and which folded, as a kept view says it; empty where nobody has said any. */
export function foldsOf(organisation: string): string {
  try {
    return here.get(organisation) ?? localStorage.getItem(key(organisation)) ?? ''
  } catch {
    return ''
  }
}

export function putFolds(organisation: string, folds: string): void {
  try {
    localStorage.setItem(key(organisation), folds)
    here.delete(organisation)
  } catch {
    here.set(organisation, folds)
  }
  listeners.forEach((listener) => listener())
}

function read(folds: string): Record<string, boolean> {
  try {
    const kept: unknown = JSON.parse(folds)
    return typeof kept === 'object' && kept !== null ? (kept as Record<string, boolean>) : {}
  } catch {
    return {}
  }
}
