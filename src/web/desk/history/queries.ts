import { useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { keys } from '../keys'

export function useRevisions(id: string) {
  return useQuery({ queryKey: keys.revisions(id), queryFn: () => call('GET', `/events/${id}/revisions`) })
}

/** What putting an earlier version back would change. */
export function usePutBack(id: string, version: number) {
  return useQuery({
    queryKey: keys.putBack(id, version),
    queryFn: () => call('GET', `/events/${id}/revisions/${version}/restore`),
    retry: false,
  })
}

/** What was done on the calendars that somebody edits. */
export function useLately() {
  return useQuery({ queryKey: keys.lately, queryFn: () => call('GET', '/acts') })
}

/** Single dates that were taken out of series. */
export function useTakenOut() {
  return useQuery({ queryKey: keys.takenOut, queryFn: () => call('GET', '/bin/dates') })
}

export function useBin() {
  return useQuery({ queryKey: keys.bin, queryFn: () => call('GET', '/bin') })
}
