import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { keys } from '../keys'

/** Which days are looked at. */
export type DeliverySpan = 'fortnight' | 'term'

/** Programs ask by themselves: nobody tells of it, and a minute later is soon enough. */
const EVERY = 60_000

/** Who fetched what of an edition. */
export function useDeliveries(id: string, span: DeliverySpan) {
  return useQuery({
    queryKey: keys.deliveries(id, span),
    queryFn: () => call('GET', `/editions/${id}/deliveries?span=${span}`),
    placeholderData: keepPreviousData,
    refetchInterval: EVERY,
  })
}

/** Who has the newest version of each edition and calendar. */
export function useReach(isAsked = true) {
  return useQuery({
    queryKey: keys.reach,
    queryFn: () => call('GET', '/reach'),
    enabled: isAsked,
    staleTime: EVERY / 2,
    refetchInterval: EVERY,
  })
}
