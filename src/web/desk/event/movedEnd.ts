const DAY = 24 * 60

const minutesOf = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5))

/** A start that moves takes the end with it, so that it lasts as long as before. Times as HH:mm; null where there is none. */
export function movedEnd(start: string | null, end: string | null, moved: string | null): string | null {
  if (!start || !end || !moved) return end
  const minutes = (((minutesOf(end) + minutesOf(moved) - minutesOf(start)) % DAY) + DAY) % DAY
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
}
