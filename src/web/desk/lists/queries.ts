import { useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { keys } from '../keys'

export function useLists() {
  return useQuery({ queryKey: keys.lists, queryFn: () => call('GET', '/lists') })
}

export type ListPath = '/lists/places' | '/lists/categories'

/** What making one entry of two would do to events. */
export function useListMerge(path: ListPath, id: string, into: string) {
  return useQuery({
    queryKey: keys.listMerge(path, id, into),
    queryFn: () => call('GET', `${path}/${id}/merge?into=${into}`),
    enabled: into !== '',
  })
}
