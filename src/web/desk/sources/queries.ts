import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { keys } from '../keys'
import { useSettled } from '../useSettled'
import type { FollowedSource, SourceRules } from '../types'

/** While one is asked, or other rules are applied, it is looked again and again. */
const ASKED_AGAIN = 500

export function useSources() {
  return useQuery({
    queryKey: keys.sources,
    queryFn: () => call('GET', '/sources'),
    refetchInterval: ({ state }) => (state.data?.some((one) => one.isBusy) ? ASKED_AGAIN : false),
  })
}

export function useSource(id: string) {
  return useQuery({
    queryKey: keys.source(id),
    queryFn: async () => (await call('GET', `/sources/${id}`)) as FollowedSource,
    refetchInterval: ({ state }) => (state.data?.isBusy ? ASKED_AGAIN : false),
    retry: false,
  })
}

/** What rules would make of what it said last. */
export function useSourcePreview(source: FollowedSource, rules: SourceRules) {
  const turn = `${source.version} ${source.changedAt} ${source.isBusy}`
  const asked = useSettled(JSON.stringify(rules))
  return useQuery({
    queryKey: keys.sourcePreview(source.id, asked, turn),
    queryFn: ({ signal }) =>
      call('POST', `/sources/${source.id}/preview`, { rules: JSON.parse(asked) as SourceRules }, { signal }),
    placeholderData: keepPreviousData,
    retry: false,
  })
}

/** Where an event comes from. */
export function useSourceOf(eventId: string) {
  return useQuery({ queryKey: keys.sourceOf(eventId), queryFn: () => call('GET', `/events/${eventId}/source`), retry: false })
}
