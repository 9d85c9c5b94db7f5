import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { apiAddress, call } from '../api'
import { keys } from '../keys'
import { unlessTold } from '../told'
import type { EditionSetting } from '../types'

/** An edition read before its readers do; entries from a day on. */
export function useProof(id: string, from: string) {
  return useQuery({
    queryKey: keys.proof(id, from),
    queryFn: () => call('GET', from ? `/editions/${id}/proof?from=${from}` : `/editions/${id}/proof`),
    placeholderData: keepPreviousData,
    refetchInterval: unlessTold(30_000),
  })
}

/** What became of entries within a fortnight, by event and date. */
export function useChangedLines(id: string) {
  const changed = useQuery({ queryKey: keys.proofChanged(id), queryFn: () => call('GET', `/editions/${id}/proof/changed`) })
  return changed.data ?? []
}

/** What another setting of an edition would do. */
export function useSettingPreview(id: string, setting: EditionSetting, calendarId: string | null, version: number) {
  return useQuery({
    queryKey: keys.setting(id, `${setting} ${calendarId} ${version}`),
    queryFn: () => call('POST', `/editions/${id}/proof/setting/preview`, { setting, calendarId, version }),
    retry: false,
  })
}

/** The feed as text. */
export function useFeedText(id: string) {
  return useQuery({
    queryKey: keys.feedText(id),
    queryFn: async ({ signal }) => {
      const answer = await fetch(apiAddress(`/editions/${id}/file.ics`), { signal })
      if (!answer.ok) throw new Error(answer.statusText)
      return answer.text()
    },
  })
}

/** Why a date is, or is not, in an edition. */
export function useTrace(id: string, eventId: string, date: string) {
  return useQuery({
    queryKey: keys.trace(id, `${eventId} ${date}`),
    queryFn: () => call('GET', `/editions/${id}/trace?event=${eventId}&date=${date}`),
    retry: false,
  })
}

/** Where a date goes; the next one where none is said. */
export function useWhere(eventId: string, date: string | null) {
  return useQuery({
    queryKey: keys.where(eventId, date ?? ''),
    queryFn: () => call('GET', date ? `/events/${eventId}/trace?date=${date}` : `/events/${eventId}/trace`),
    retry: false,
  })
}

/** All that is open to the person. */
export function useNeeds(isAsked: boolean) {
  return useQuery({
    queryKey: keys.needs,
    queryFn: () => call('GET', '/needs'),
    enabled: isAsked,
    refetchInterval: unlessTold(60_000),
  })
}
