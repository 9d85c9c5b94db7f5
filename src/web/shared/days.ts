import { dateFormat } from './formats'

/** A calendar day, written 2026-11-24. Days are never instants: no time zone can shift them. */
export type Day = string

const MILLISECONDS_OF_DAY = 86_400_000

function asDate(day: Day): Date {
  return new Date(`${day}T00:00:00Z`)
}

function asDay(date: Date): Day {
  return date.toISOString().slice(0, 10)
}

export function addDays(day: Day, days: number): Day {
  return asDay(new Date(asDate(day).getTime() + days * MILLISECONDS_OF_DAY))
}

export function daysBetween(from: Day, to: Day): number {
  return Math.round((asDate(to).getTime() - asDate(from).getTime()) / MILLISECONDS_OF_DAY)
}

/** 1 is Monday, 7 is Sunday. */
export function weekdayOf(day: Day): number {
  return asDate(day).getUTCDay() || 7
}

export function isWeekend(day: Day): boolean {
  return weekdayOf(day) > 5
}

/** The first day of the week that holds a day. */
export function weekOf(day: Day, firstDayOfWeek: number): Day {
  return addDays(day, -((weekdayOf(day) - firstDayOfWeek + 7) % 7))
}

export function daysFrom(first: Day, count: number): Day[] {
  return Array.from({ length: count }, (_, index) => addDays(first, index))
}

/** A month, written 2026-11. */
export type Month = string

export function monthOf(day: Day): Month {
  return day.slice(0, 7)
}

export function addMonths(month: Month, months: number): Month {
  const date = asDate(`${month}-01`)
  date.setUTCMonth(date.getUTCMonth() + months)
  return monthOf(asDay(date))
}

/** The whole weeks that a month touches. */
export function weeksOf(month: Month, firstDayOfWeek: number): Day[][] {
  const next = `${addMonths(month, 1)}-01`
  const weeks: Day[][] = []
  for (let first = weekOf(`${month}-01`, firstDayOfWeek); first < next; first = addDays(first, 7)) weeks.push(daysFrom(first, 7))
  return weeks
}

/** The day it is now in a zone. */
export function todayIn(zone: string, now = new Date()): Day {
  const parts = dateFormat('en', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  }).formatToParts(now)
  const part = (type: string) => parts.find((one) => one.type === type)?.value ?? ''
  return `${part('year')}-${part('month')}-${part('day')}`
}

/** Writes a day in a locale, such as sayDay('2026-11-24', 'en-GB', { weekday: 'short', day: 'numeric' }). */
export function sayDay(day: Day, locale: string, options: Intl.DateTimeFormatOptions): string {
  return formatOf(locale, options).format(asDate(day))
}

const formatOf = (locale: string, options: Intl.DateTimeFormatOptions) => dateFormat(locale, { ...options, timeZone: 'UTC' })

export function sayMonth(month: Month, locale: string): string {
  return sayDay(`${month}-01`, locale, { month: 'long', year: 'numeric' })
}

/** "23 – 29 November 2026", "30 November – 6 December 2026", as the language writes a stretch of days. */
export function saySpan(first: Day, last: Day, locale: string): string {
  const format = formatOf(locale, { day: 'numeric', month: 'long', year: 'numeric' })
  return format.formatRange(asDate(first), asDate(last)).replace(/\s*–\s*/, ' – ')
}

/** "Halifax" of America/Halifax. */
export function placeOfZone(zone: string): string {
  return (zone.split('/').pop() ?? zone).replaceAll('_', ' ')
}
