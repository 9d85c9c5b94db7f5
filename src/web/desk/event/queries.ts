import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { call } from '../api'
import { onItsDays, type ConsequencesRequest } from '../types'
import { keys } from '../keys'

/** An event seen from one of its dates; the next one when none is said. */
export function useEvent(id: string | undefined, date: string | null) {
  return useQuery({
    queryKey: keys.eventOn(id ?? '', date ?? ''),
    queryFn: async () => onItsDays(await call('GET', date ? `/events/${id}?date=${encodeURIComponent(date)}` : `/events/${id}`)),
    enabled: id !== undefined,
    // A form is filled from it: fetching it again under somebody's hands helps nobody.
    staleTime: Infinity,
    gcTime: 0,
  })
}

/** What would follow from a draft. Its text is the key, so that the same draft is asked once. */
export function useConsequences(text: string, isWanted: boolean) {
  return useQuery({
    enabled: isWanted,
    queryKey: keys.consequences(text),
    queryFn: ({ signal }) => call('POST', '/events/consequences', JSON.parse(text) as ConsequencesRequest, { signal }),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 60_000,
  })
}

/** Patterns to start from, of the calendars on which the person makes events. */
export function useTemplates(isWanted: boolean) {
  return useQuery({ enabled: isWanted, queryKey: keys.templates, queryFn: () => call('GET', '/templates'), retry: false })
}

/** Which editions would deliver a draft; the same text is asked once. */
export function useDestinations(text: string, isWanted: boolean) {
  return useQuery({
    enabled: isWanted,
    queryKey: keys.destinations(text),
    queryFn: ({ signal }) => call('POST', '/events/destinations', JSON.parse(text) as ConsequencesRequest, { signal }),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 60_000,
  })
}

/** The plain form of a description, as feeds carry it. */
export function usePlainText(html: string, isWanted: boolean) {
  return useQuery({
    enabled: isWanted,
    queryKey: keys.plainText(html),
    queryFn: ({ signal }) => call('POST', '/typed/plain', { html }, { signal }),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  })
}
