import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Day } from '../../shared/days'
import { call } from '../api'
import { keys } from '../keys'

/** The dates from one day up to, not including, another. */
export function useOccurrences(from: Day, to: Day, isWanted = true) {
  return useQuery({
    enabled: isWanted,
    queryKey: keys.occurrences(from, to),
    queryFn: ({ signal }) => call('GET', `/occurrences?from=${from}&to=${to}`, undefined, { signal }),
    placeholderData: keepPreviousData,
  })
}

/** A page of all that is on over a long time. */
export function useList(question: string) {
  return useQuery({
    queryKey: keys.list(question),
    queryFn: ({ signal }) => call('GET', `/occurrences/list?${question}`, undefined, { signal }),
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
