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

/** What somebody may mean who types where something is: places of the list, then words that events have. */
export function usePlacesToType(): string[] {
  const lists = useLists().data
  const words = useQuery({
    queryKey: keys.placesInWords,
    queryFn: () => call('GET', '/lists/places/words'),
    staleTime: 300_000,
  }).data
  return [...new Set([...(lists?.places ?? []).map((place) => place.name), ...(words ?? [])])]
}
