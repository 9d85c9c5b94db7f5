import { useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { keys } from '../keys'
import { unlessTold } from '../told'

/** What waits for sign-off, and what was handed in by oneself. */
export function useSignOff() {
  return useQuery({
    queryKey: keys.signOff,
    queryFn: () => call('GET', '/sign-off'),
    refetchInterval: unlessTold(30_000),
  })
}

export function useSignOffCount(isWanted: boolean) {
  return useQuery({
    queryKey: keys.signOffCount,
    queryFn: () => call('GET', '/sign-off/count'),
    enabled: isWanted,
    refetchInterval: unlessTold(30_000),
  })
}

/** What was handed in, to be opened in the form again. */
export function useProposal(id: string | null) {
  return useQuery({
    queryKey: keys.proposal(id ?? ''),
    queryFn: () => call('GET', `/sign-off/${id}`),
    enabled: id !== null,
    staleTime: Infinity,
    gcTime: 0,
  })
}
