import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Day } from '../shared/days'
import {
  call,
  rememberToken,
  type Calendar,
  type Colour,
  type Consequences,
  type Happening,
  type HappeningRequest,
  type Occurrence,
  type Organisation,
  type Publishing,
  type Session,
  type Year,
  type Zone,
} from './api'

/** Every key of the cache is made here. */
const keys = {
  session: ['session'] as const,
  calendars: ['calendars'] as const,
  calendar: (id: string) => ['calendars', id] as const,
  publishing: (id: string) => ['calendars', id, 'publishing'] as const,
  occurrences: (from: Day, to: Day) => ['occurrences', from, to] as const,
  year: (day: Day) => ['year', day] as const,
  event: (id: string) => ['events', id] as const,
  consequences: (draft: string) => ['consequences', draft] as const,
}

export function useSession() {
  return useQuery({
    queryKey: keys.session,
    queryFn: async () => rememberToken(await call<Session>('GET', '/session')),
    staleTime: Infinity,
  })
}

/** The organisation of who is signed in. Screens are shown only then. */
export function useOrganisation(): Organisation {
  const organisation = useSession().data?.organisation
  if (!organisation) throw new Error('Nobody is signed in.')
  return organisation
}

export function useCalendars() {
  return useQuery({ queryKey: keys.calendars, queryFn: () => call<Calendar[]>('GET', '/calendars'), refetchInterval: 15_000 })
}

export function useCalendar(id: string | undefined) {
  return useQuery({
    queryKey: keys.calendar(id ?? ''),
    queryFn: () => call<Calendar>('GET', `/calendars/${id}`),
    enabled: id !== undefined,
  })
}

export function usePublishing(id: string) {
  return useQuery({
    queryKey: keys.publishing(id),
    queryFn: () => call<Publishing>('GET', `/calendars/${id}/publishing`),
    refetchInterval: 5_000,
  })
}

/** The dates from one day up to, not including, another. */
export function useOccurrences(from: Day, to: Day) {
  return useQuery({
    queryKey: keys.occurrences(from, to),
    queryFn: ({ signal }) => call<Occurrence[]>('GET', `/occurrences?from=${from}&to=${to}`, undefined, signal),
    placeholderData: keepPreviousData,
  })
}

export function useYear(day: Day) {
  return useQuery({
    queryKey: keys.year(day),
    queryFn: () => call<Year>('GET', `/year?day=${day}`),
    placeholderData: keepPreviousData,
  })
}

export function useEvent(id: string | undefined) {
  return useQuery({
    queryKey: keys.event(id ?? ''),
    queryFn: () => call<Happening>('GET', `/events/${id}`),
    enabled: id !== undefined,
    // A form is filled from it: fetching it again under somebody's hands helps nobody.
    staleTime: Infinity,
    gcTime: 0,
  })
}

/** What would follow from a draft. Its text is the key, so that the same draft is asked once. */
export function useConsequences(draft: HappeningRequest | null) {
  const text = JSON.stringify(draft)
  return useQuery({
    queryKey: keys.consequences(text),
    queryFn: ({ signal }) => call<Consequences>('POST', '/events/consequences', draft, signal),
    enabled: draft !== null,
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 60_000,
  })
}

export function useZones() {
  return useQuery({ queryKey: ['zones'], queryFn: () => call<Zone[]>('GET', '/zones'), staleTime: Infinity })
}

export function useColours() {
  return useQuery({ queryKey: ['colours'], queryFn: () => call<Colour[]>('GET', '/colours'), staleTime: Infinity })
}

/** After any change: what is on screen is asked for again. */
export function useRefresh() {
  const client = useQueryClient()
  return {
    everything: () =>
      client.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'session' && query.queryKey[0] !== 'events' }),
    event: (id: string) => client.invalidateQueries({ queryKey: keys.event(id) }),
    session: () => client.invalidateQueries({ queryKey: keys.session }),
    /** Nothing of the person who was signed in stays behind. */
    forgetAll: async () => {
      await client.resetQueries({ queryKey: keys.session })
      client.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' })
    },
    setSession: (session: Session) => client.setQueryData(keys.session, rememberToken(session)),
  }
}
