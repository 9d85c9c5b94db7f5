import type { Placed } from '../../shared/timeGrid'

/** What there is no room for, by the hour in which it begins. */
export interface More {
  /** From 0 at the day's beginning to 1 at its end. */
  top: number
  height: number
  count: number
}

/** Of what overlaps no more than can be read side by side: the last place of an hour says how many more begin in it. */
export function readable<T>(placed: Placed<T>[], most: number, hours: number): { shown: Placed<T>[]; more: More[] } {
  const isLeft = (one: Placed<T>) => one.columns > most && one.column >= most - 1
  const shown = placed.filter((one) => !isLeft(one)).map((one) => ({ ...one, columns: Math.min(one.columns, most) }))
  const counts = new Map<number, number>()
  for (const one of placed.filter(isLeft)) {
    const hour = Math.floor(one.top * hours + 1e-9)
    counts.set(hour, (counts.get(hour) ?? 0) + 1)
  }
  return { shown, more: [...counts].map(([hour, count]) => ({ top: hour / hours, height: 1 / hours, count })) }
}
