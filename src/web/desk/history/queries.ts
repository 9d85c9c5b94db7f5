import { useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { keys } from '../keys'

export function useRevisions(id: string) {
  return useQuery({ queryKey: keys.revisions(id), queryFn: () => call('GET', `/events/${id}/revisions`) })
}

export function useBin() {
  return useQuery({ queryKey: keys.bin, queryFn: () => call('GET', '/bin') })
}
