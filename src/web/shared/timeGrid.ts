/** A stretch of a day, in milliseconds since the epoch. */
export interface Stretch {
  start: number
  end: number
}

export interface Placed<T> {
  item: T
  /** From 0 at the day's beginning to 1 at its end, in real time: a day of 25 hours has 25. */
  top: number
  height: number
  /** Which of `columns` side by side. */
  column: number
  columns: number
}

/**
 * Places what is on in a day: by real time, side by side where it overlaps.
 * @param least The least height, as a part of the day, so that what has no length can be hit.
 */
export function layoutDay<T>(day: Stretch, items: { item: T; stretch: Stretch }[], least: number): Placed<T>[] {
  const length = day.end - day.start
  const placed = items
    .map(({ item, stretch }) => {
      const top = (Math.max(stretch.start, day.start) - day.start) / length
      const bottom = (Math.min(stretch.end, day.end) - day.start) / length
      const height = Math.max(bottom - top, least)
      return { item, top: Math.min(top, 1 - height), height, column: 0, columns: 1 }
    })
    .sort((one, other) => one.top - other.top || other.height - one.height)
  let group: Placed<T>[] = []
  let reach = 0
  for (const one of placed) {
    if (one.top >= reach - 1e-9) {
      spread(group)
      group = []
      reach = 0
    }
    group.push(one)
    reach = Math.max(reach, one.top + one.height)
  }
  spread(group)
  return placed
}

/** Gives each of a group the first column that is free when it begins. */
function spread<T>(group: Placed<T>[]): void {
  const ends: number[] = []
  for (const one of group) {
    const free = ends.findIndex((end) => end <= one.top + 1e-9)
    one.column = free < 0 ? ends.length : free
    ends[one.column] = one.top + one.height
  }
  for (const one of group) one.columns = ends.length
}

/** The hours of a day as its clocks show them, each with its place from 0 to 1: an hour that is skipped is missing, one that comes again is there twice. */
export function hoursOf(start: string, end: string, clocksChangeAt: string | null): { label: string; top: number }[] {
  const [from, to] = [Date.parse(start), Date.parse(end)]
  const changeAt = clocksChangeAt === null ? Infinity : Date.parse(clocksChangeAt)
  const hours: { label: string; top: number }[] = []
  for (let instant = from; instant < to; instant += 3_600_000) {
    const offset = offsetOf(instant >= changeAt ? end : start)
    const local = new Date(instant + offset * 60_000)
    hours.push({ label: `${String(local.getUTCHours()).padStart(2, '0')}:00`, top: (instant - from) / (to - from) })
  }
  return hours
}

/** The local time at a place of the day, to the quarter of an hour: "14:15". */
export function timeAt(top: number, start: string, end: string, clocksChangeAt: string | null): string {
  const [from, to] = [Date.parse(start), Date.parse(end)]
  const quarter = 900_000
  const instant = from + Math.min(Math.floor(((to - from) * Math.max(0, top)) / quarter) * quarter, to - from - quarter)
  const changeAt = clocksChangeAt === null ? Infinity : Date.parse(clocksChangeAt)
  const local = new Date(instant + offsetOf(instant >= changeAt ? end : start) * 60_000)
  return local.toISOString().slice(11, 16)
}

/** Minutes east of UTC of a moment such as 2026-11-24T00:00:00-04:00. */
function offsetOf(moment: string): number {
  const match = /([+-])(\d{2}):(\d{2})$/.exec(moment)
  return match ? (match[1] === '-' ? -1 : 1) * (Number(match[2]) * 60 + Number(match[3])) : 0
}
