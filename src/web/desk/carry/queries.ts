import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { keys } from '../keys'
import type { CarryRequest } from '../types'

/** What the events of a year would be in another; asked anew for what is corrected or chosen. */
export function useCarried(from: string | undefined, request: CarryRequest | null) {
  const text = JSON.stringify(request)
  return useQuery({
    enabled: from !== undefined && request !== null,
    queryKey: keys.carry(from ?? '', text),
    queryFn: ({ signal }) =>
      call('POST', `/year-plans/${from ?? ''}/carry/preview`, JSON.parse(text) as CarryRequest, { signal }),
    placeholderData: keepPreviousData,
    retry: false,
  })
}
