import { isMore } from '../openness'
import type { Calendar, Group } from '../types'

/** With fewer there is nothing to look for. */
export const MANY = 12
export const orders = ['made', 'name', 'open', 'events'] as const
export type Order = (typeof orders)[number]

/** By its name, its plate, or a group that holds it. */
export function isMeant(calendar: Calendar, groups: Group[], find: string): boolean {
  const text = find.trim().toLowerCase()
  const called = [
    calendar.name,
    calendar.plate,
    ...groups.filter((group) => group.calendars.includes(calendar.id)).map(({ name }) => name),
  ]
  return called.some((one) => one.toLowerCase().includes(text))
}

export function sorted(calendars: Calendar[], order: Order): Calendar[] {
  const openness = (one: Calendar, other: Calendar) => {
    const key = (['everyone', 'link', 'members'] as const).find(
      (audience) => one.disclosure[audience] !== other.disclosure[audience],
    )
    return key === undefined ? 0 : isMore(one.disclosure[key], other.disclosure[key]) ? -1 : 1
  }
  if (order === 'name') return [...calendars].sort((one, other) => one.name.localeCompare(other.name))
  if (order === 'open') return [...calendars].sort(openness)
  if (order === 'events') return [...calendars].sort((one, other) => (other.events ?? 0) - (one.events ?? 0))
  return calendars
}
