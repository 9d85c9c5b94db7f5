import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { keys } from '../keys'

/** What is found for a text; nothing is asked for less than two characters. */
export function useSearch(text: string) {
  return useQuery({
    queryKey: keys.search(text),
    queryFn: ({ signal }) => call('GET', `/search?text=${encodeURIComponent(text)}`, undefined, { signal }),
    enabled: text.length >= 2,
    placeholderData: keepPreviousData,
    retry: false,
  })
}
