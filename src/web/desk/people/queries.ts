import { useInfiniteQuery, useQuery } from '@tanstack/react-query'
import { call } from '../api'
import type { AuditLine } from '../types'
import { keys } from '../keys'

export function usePeople() {
  return useQuery({ queryKey: keys.people, queryFn: () => call('GET', '/people') })
}

/** Who did what, latest first, a page at a time. */
export function useAudit(act: string) {
  return useInfiniteQuery({
    queryKey: keys.audit(act),
    queryFn: ({ pageParam }) => call('GET', `/audit?${act ? `act=${act}&` : ''}${pageParam ? `before=${pageParam}` : ''}`),
    initialPageParam: '',
    getNextPageParam: (page: AuditLine[]) => (page.length === 100 ? page[99]?.id : undefined),
  })
}
