import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { keys } from '../keys'
import type { ChosenRequest } from '../types'

/** What an act would do to all that is chosen, before it is done. */
export function useChosenPreview(request: ChosenRequest | null) {
  const text = JSON.stringify(request)
  return useQuery({
    enabled: request !== null,
    queryKey: keys.chosen(text),
    queryFn: ({ signal }) => call('POST', '/events/chosen/preview', JSON.parse(text) as ChosenRequest, { signal }),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  })
}
