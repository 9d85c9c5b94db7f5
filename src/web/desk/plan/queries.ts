import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Day } from '../../shared/days'
import { call } from '../api'
import { keys } from '../keys'
import type { Calendar } from '../types'
import type { Filter, Plan } from './usePlanAddress'

/** The dates from one day up to, not including, another. */
export function useOccurrences(from: Day, to: Day, isWanted = true) {
  return useQuery({
    enabled: isWanted,
    queryKey: keys.occurrences(from, to),
    queryFn: ({ signal }) => call('GET', `/occurrences?from=${from}&to=${to}`, undefined, { signal }),
    placeholderData: keepPreviousData,
  })
}

/** What the list of a year is asked for: the plan's year, filter and order. */
export function questionOf(plan: Plan, calendars: Calendar[]): string {
  return `from=${plan.first}&to=${plan.end}&order=${plan.order}${narrowing(plan.filter, calendars)}`
}

/** What the plan is narrowed to, as the server is asked. */
export function narrowing({ category, tag, place, person, words, group, calendar }: Filter, calendars: Calendar[]): string {
  const asked = new URLSearchParams()
  for (const [name, value] of Object.entries({ category, tag, place, person, words })) if (value !== '') asked.set(name, value)
  if (group !== '' || calendar !== '') for (const { id } of calendars) asked.append('calendar', id)
  return asked.size > 0 ? `&${asked.toString()}` : ''
}

/** A page of all that is on over a long time. */
export function useList(question: string, isWanted = true) {
  return useQuery({
    enabled: isWanted,
    queryKey: keys.list(question),
    queryFn: ({ signal }) => call('GET', `/occurrences/list?${question}`, undefined, { signal }),
    placeholderData: keepPreviousData,
  })
}

/** A year as it stands on one sheet. */
export function useSheet(question: string) {
  return useQuery({
    queryKey: keys.sheet(question),
    queryFn: ({ signal }) => call('GET', `/occurrences/sheet?${question}`, undefined, { signal }),
    placeholderData: keepPreviousData,
  })
}

/** Ways to look at the plan that were kept under a name. */
export function usePlanViews(isWanted: boolean) {
  return useQuery({ enabled: isWanted, queryKey: keys.planViews, queryFn: () => call('GET', '/plan-views') })
}

export function useYear(day: Day) {
  return useQuery({
    queryKey: keys.year(day),
    queryFn: () => call('GET', `/year?day=${day}`),
    placeholderData: keepPreviousData,
  })
}

/** How the clocks and the year plan have the days from one up to, not including, another. */
export function useDays(from: Day, to: Day, isWanted = true) {
  return useQuery({
    enabled: isWanted,
    queryKey: keys.days(from, to),
    queryFn: ({ signal }) => call('GET', `/days?from=${from}&to=${to}`, undefined, { signal }),
    staleTime: 60_000,
    placeholderData: keepPreviousData,
  })
}
