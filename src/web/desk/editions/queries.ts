import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query'
import { call } from '../api'
import type { Edition, EditionDraft } from '../types'
import { keys } from '../keys'
import { hasCalendars } from './draft'
import { unlessTold } from '../told'

/** Editions that the person may compose or read, with how fresh each is. */
export function useEditions() {
  return useQuery({
    queryKey: keys.editions,
    queryFn: () => call('GET', '/editions'),
    refetchInterval: unlessTold(10_000),
  })
}

/** An edition to be edited. A form is filled from it, so it is not fetched again by itself. */
export function useEdition(id: string | undefined) {
  return useQuery({
    queryKey: keys.edition(id ?? ''),
    queryFn: () => call('GET', `/editions/${id}`),
    enabled: id !== undefined,
    staleTime: Infinity,
    gcTime: 0,
  })
}

/** The edition of the page, which is not asked for again by itself: somebody types into it. */
export function useKnownEdition() {
  const client = useQueryClient()
  return {
    /** As it came back from a save. */
    keep: (edition: Edition) => client.setQueriesData({ queryKey: keys.edition(edition.id) }, edition),
    askAgain: (id: string) => client.invalidateQueries({ queryKey: keys.edition(id) }),
  }
}

/** The edition as it would be, and what would be missing from it; nothing is asked while it has no calendar. */
export function useEditionPreview(id: string | undefined, text: string) {
  const edition = JSON.parse(text) as EditionDraft
  return useQuery({
    enabled: hasCalendars(edition),
    queryKey: keys.editionPreview(`${id} ${text}`),
    queryFn: ({ signal }) => call('POST', id ? `/editions/preview?id=${id}` : '/editions/preview', { edition }, { signal }),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 30_000,
  })
}

export type OwnLinkPath = `/editions/${string}/link` | '/account/events/link'

/** One's own secret address: of an edition for members, or of what one is responsible for. */
export function useOwnLink(path: OwnLinkPath) {
  return useQuery({ queryKey: keys.ownLink(path), queryFn: () => call('GET', path) })
}

export function useEditionBin() {
  return useQuery({ queryKey: keys.editionBin, queryFn: () => call('GET', '/editions/bin') })
}

export function usePalettes() {
  return useQuery({
    queryKey: keys.palettes,
    queryFn: () => call('GET', '/editions/palettes'),
    staleTime: Infinity,
  })
}
