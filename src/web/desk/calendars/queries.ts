import { useQuery } from '@tanstack/react-query'
import { call } from '../api'
import type { Calendar, Disclosure } from '../types'
import { keys } from '../keys'
import { unlessTold } from '../told'

export function useCalendars() {
  return useQuery({
    queryKey: keys.calendars,
    queryFn: () => call('GET', '/calendars'),
    refetchInterval: unlessTold(15_000),
  })
}

export function useCalendar(id: string | undefined) {
  return useQuery({
    queryKey: keys.calendar(id ?? ''),
    queryFn: () => call('GET', `/calendars/${id}`),
    enabled: id !== undefined,
  })
}

/** A free plate for a name. */
export function usePlate(name: string, isWanted: boolean) {
  return useQuery({
    queryKey: keys.plate(name),
    queryFn: ({ signal }) => call('GET', `/calendars/plate?name=${encodeURIComponent(name)}`, undefined, { signal }),
    enabled: isWanted && name.trim() !== '',
  })
}

export function usePublishing(id: string) {
  return useQuery({
    queryKey: keys.publishing(id),
    queryFn: () => call('GET', `/calendars/${id}/publishing`),
    refetchInterval: unlessTold(5_000),
  })
}

export function useCalendarBin(isWanted: boolean) {
  return useQuery({
    queryKey: keys.calendarBin,
    queryFn: () => call('GET', '/calendars/bin'),
    enabled: isWanted,
  })
}

/** The secret address of a calendar, for those who keep it. */
export function useSecretLink(id: string) {
  return useQuery({ queryKey: keys.link(id), queryFn: () => call('GET', `/calendars/${id}/link`) })
}

/** What another table would let each audience see, or take from it. */
export function useOpening(id: string, disclosure: Disclosure | null, version: number) {
  const table = JSON.stringify({ disclosure, version })
  return useQuery({
    queryKey: keys.opening(id, table),
    queryFn: () => call('POST', `/calendars/${id}/disclosure/preview`, JSON.parse(table)),
    enabled: disclosure !== null,
    retry: false,
    staleTime: 0,
  })
}

export function useGroups() {
  return useQuery({ queryKey: keys.groups, queryFn: () => call('GET', '/groups'), staleTime: 60_000 })
}

export function useZones() {
  return useQuery({ queryKey: ['zones'], queryFn: () => call('GET', '/zones'), staleTime: Infinity })
}

export function useColours() {
  return useQuery({ queryKey: ['colours'], queryFn: () => call('GET', '/colours'), staleTime: Infinity })
}

/** Calendars on which the person makes events at once: no source fills them, and they are not archived. */
export function useFillableCalendars(): Calendar[] {
  return (useCalendars().data ?? []).filter((one) => one.mayEdit && one.mayContribute)
}
