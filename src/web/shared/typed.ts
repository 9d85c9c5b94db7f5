import { sayDay, type Day } from './days'

/**
 * A time as people type it: 9, 9:30, 930, 9.30pm, 21:30. Null when it is none.
 * @param oClock The word that a language puts after it: "Uhr".
 */
export function readTime(typed: string, oClock = ''): string | null {
  const plain = typed.trim().toLowerCase()
  const text = oClock && plain.endsWith(oClock.toLowerCase()) ? plain.slice(0, -oClock.length) : plain
  const match = /^\s*(\d{1,2})(?:[:.h ]?(\d{2}))?\s*(a|p|am|pm|a\.m\.|p\.m\.)?\s*$/i.exec(text)
  if (!match) return null
  let hour = Number(match[1])
  const minute = Number(match[2] ?? '0')
  const half = match[3]?.[0]?.toLowerCase()
  if (half) {
    if (hour < 1 || hour > 12) return null
    hour = (hour % 12) + (half === 'p' ? 12 : 0)
  }
  if (hour > 23 || minute > 59) return null
  return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`
}

/** A day as people type it in a locale: 24 Nov, 24 November 2026, 24.11., 24/11/26, 2026-11-24. Null when it is none. */
export function readDay(text: string, locale: string, today: Day): Day | null {
  const plain = text.trim().toLowerCase()
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(plain)
  if (iso) return asDay(Number(iso[1]), Number(iso[2]), Number(iso[3]))
  const month = monthNamed(plain, locale)
  const numbers = (plain.match(/\d+/g) ?? []).map(Number)
  if (month > 0) return fromParts(numbers[0], month, numbers[1], today)
  if (!/^[\d\s./-]+$/.test(plain) || numbers.length < 2) return null
  return dayComesFirst(locale)
    ? fromParts(numbers[0], numbers[1], numbers[2], today)
    : fromParts(numbers[1], numbers[0], numbers[2], today)
}

function fromParts(day: number | undefined, month: number | undefined, year: number | undefined, today: Day): Day | null {
  if (day === undefined || month === undefined) return null
  if (year !== undefined) return asDay(year < 100 ? 2000 + year : year, month, day)
  // Without a year the nearest one is meant: in December, "8 Jan" is next year's.
  const thisYear = Number(today.slice(0, 4))
  const candidates = [thisYear - 1, thisYear, thisYear + 1].map((one) => asDay(one, month, day)).filter((one) => one !== null)
  const distance = (one: Day) => Math.abs(Date.parse(one) - Date.parse(today))
  return candidates.sort((one, other) => distance(one) - distance(other))[0] ?? null
}

function asDay(year: number, month: number, day: number): Day | null {
  const date = new Date(Date.UTC(year, month - 1, day))
  const isReal = date.getUTCFullYear() === year && date.getUTCMonth() === month - 1 && date.getUTCDate() === day
  return isReal && year > 999 ? date.toISOString().slice(0, 10) : null
}

/** 1 to 12, or 0 when the text names no month. Three letters are enough. */
function monthNamed(text: string, locale: string): number {
  const words = text.match(/\p{L}{3,}/gu) ?? []
  for (let month = 1; month <= 12; month++) {
    const day = `2026-${String(month).padStart(2, '0')}-01`
    const name = sayDay(day, locale, { month: 'long' }).toLowerCase()
    if (words.some((word) => name.startsWith(word.slice(0, 3)) && (name.startsWith(word) || word.startsWith(name.slice(0, 3)))))
      return month
  }
  return 0
}

function dayComesFirst(locale: string): boolean {
  const parts = new Intl.DateTimeFormat(locale, { timeZone: 'UTC' }).formatToParts(0).map((part) => part.type)
  return parts.indexOf('day') < parts.indexOf('month')
}
