import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { call } from '../api'
import type { YearPlanRequest } from '../types'
import { keys } from '../keys'

export function useYearPlans() {
  return useQuery({ queryKey: keys.yearPlans, queryFn: () => call('GET', '/year-plans') })
}

/** What saving a year plan would do to the series that follow it. */
export function useImpact(id: string | null, text: string, isNeeded: boolean) {
  return useQuery({
    queryKey: keys.impact(id, text),
    queryFn: ({ signal }) =>
      call('POST', id ? `/year-plans/preview?id=${id}` : '/year-plans/preview', JSON.parse(text) as YearPlanRequest, { signal }),
    enabled: isNeeded,
    placeholderData: keepPreviousData,
    retry: false,
  })
}

/** The same of removing it. */
export function useRemoval(id: string | null, isNeeded: boolean) {
  return useQuery({
    queryKey: keys.yearRemoval(id),
    queryFn: () => call('GET', `/year-plans/${id as string}/removal`),
    enabled: isNeeded && id !== null,
    retry: false,
  })
}
