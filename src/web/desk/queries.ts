import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Day } from '../shared/days'
import { seenAs } from './seeAs'
import { unlessTold } from './told'
import {
  call,
  onItsDays,
  type AuditLine,
  type EditionDraft,
  type Disclosure,
  rememberToken,
  type ConsequencesRequest,
  type TableRow,
  type YearPlanRequest,
  type Organisation,
  type Session,
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
  eventOn: (id: string, date: string) => ['events', id, date] as const,
  revisions: (id: string) => ['revisions', id] as const,
  bin: ['bin'] as const,
  calendarBin: ['bin', 'calendars'] as const,
  link: (id: string) => ['calendars', id, 'link'] as const,
  opening: (id: string, table: string) => ['calendars', id, 'opening', table] as const,
  groups: ['groups'] as const,
  people: ['people'] as const,
  audit: (act: string) => ['audit', act] as const,
  signOff: ['sign-off'] as const,
  signOffCount: ['sign-off', 'count'] as const,
  proposal: (id: string) => ['events', 'proposal', id] as const,
  yearPlans: ['year-plans'] as const,
  impact: (id: string | null, draft: string) => ['year-plans', 'impact', id, draft] as const,
  lists: ['lists'] as const,
  days: (from: Day, to: Day) => ['days', from, to] as const,
  line: (text: string, day: Day) => ['line', text, day] as const,
  several: (rows: string) => ['several', rows] as const,
  editions: ['editions'] as const,
  edition: (id: string) => ['events', 'edition', id] as const,
  editionPreview: (draft: string) => ['edition-preview', draft] as const,
  editionBin: ['bin', 'editions'] as const,
  editionLink: (id: string) => ['editions', id, 'link'] as const,
  palettes: ['palettes'] as const,
  failing: ['failing'] as const,
  consequences: (draft: string) => ['consequences', draft] as const,
  destinations: (draft: string) => ['destinations', draft] as const,
}

export function useSession() {
  return useQuery({
    queryKey: keys.session,
    queryFn: async () => asSeen(rememberToken(await call('GET', '/session'))),
    staleTime: Infinity,
  })
}

/** Who looks at things as others see them may do what those may: nothing. */
function asSeen(session: Session): Session {
  if (seenAs() === null || !session.person) return session
  return { ...session, person: { ...session.person, isAdministrator: false, maySignOff: false } }
}

/** The organisation of who is signed in. Screens are shown only then. */
export function useOrganisation(): Organisation {
  const organisation = useSession().data?.organisation
  if (!organisation) throw new Error('Nobody is signed in.')
  return organisation
}

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

export function usePublishing(id: string) {
  return useQuery({
    queryKey: keys.publishing(id),
    queryFn: () => call('GET', `/calendars/${id}/publishing`),
    refetchInterval: unlessTold(5_000),
  })
}

/** The dates from one day up to, not including, another. */
export function useOccurrences(from: Day, to: Day) {
  return useQuery({
    queryKey: keys.occurrences(from, to),
    queryFn: ({ signal }) => call('GET', `/occurrences?from=${from}&to=${to}`, undefined, { signal }),
    placeholderData: keepPreviousData,
  })
}

export function useYear(day: Day) {
  return useQuery({
    queryKey: keys.year(day),
    queryFn: () => call('GET', `/year?day=${day}`),
    placeholderData: keepPreviousData,
  })
}

/** How the clocks and the year plan have the days from one up to, not including, another. */
export function useDays(from: Day, to: Day) {
  return useQuery({
    queryKey: keys.days(from, to),
    queryFn: ({ signal }) => call('GET', `/days?from=${from}&to=${to}`, undefined, { signal }),
    staleTime: 60_000,
    placeholderData: keepPreviousData,
  })
}

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
export function useConsequences(text: string) {
  return useQuery({
    queryKey: keys.consequences(text),
    queryFn: ({ signal }) => call('POST', '/events/consequences', JSON.parse(text) as ConsequencesRequest, { signal }),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 60_000,
  })
}

/** Which editions would deliver a draft; the same text is asked once. */
export function useDestinations(text: string) {
  return useQuery({
    queryKey: keys.destinations(text),
    queryFn: ({ signal }) => call('POST', '/events/destinations', JSON.parse(text) as ConsequencesRequest, { signal }),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 60_000,
  })
}

export function useRevisions(id: string) {
  return useQuery({ queryKey: keys.revisions(id), queryFn: () => call('GET', `/events/${id}/revisions`) })
}

export function useBin() {
  return useQuery({ queryKey: keys.bin, queryFn: () => call('GET', '/bin') })
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

export function usePeople() {
  return useQuery({ queryKey: keys.people, queryFn: () => call('GET', '/people') })
}

/** Who did what, latest first, a page at a time. */
export function useAudit(act: string) {
  return useInfiniteQuery({
    queryKey: keys.audit(act),
    queryFn: ({ pageParam }) => call('GET', `/audit?${act ? `act=${act}&` : ''}${pageParam ? `before=${pageParam}` : ''}`),
    initialPageParam: '',
    getNextPageParam: (page: AuditLine[]) => (page.length === 100 ? page[99]?.id : undefined),
  })
}

/** What waits for sign-off, and what was handed in by oneself. */
export function useSignOff() {
  return useQuery({
    queryKey: keys.signOff,
    queryFn: () => call('GET', '/sign-off'),
    refetchInterval: unlessTold(30_000),
  })
}

export function useSignOffCount(isWanted: boolean) {
  return useQuery({
    queryKey: keys.signOffCount,
    queryFn: () => call('GET', '/sign-off/count'),
    enabled: isWanted,
    refetchInterval: unlessTold(30_000),
  })
}

/** What was to be done and does not succeed; for administrators. */
export function useFailing(isWanted: boolean) {
  return useQuery({
    queryKey: keys.failing,
    queryFn: () => call('GET', '/work'),
    enabled: isWanted,
    refetchInterval: unlessTold(30_000),
  })
}

/** What was handed in, to be opened in the form again. */
export function useProposal(id: string | null) {
  return useQuery({
    queryKey: keys.proposal(id ?? ''),
    queryFn: () => call('GET', `/sign-off/${id}`),
    enabled: id !== null,
    staleTime: Infinity,
    gcTime: 0,
  })
}

export function useYearPlans() {
  return useQuery({ queryKey: keys.yearPlans, queryFn: () => call('GET', '/year-plans') })
}

/** What saving a year plan would do to the series that follow it. */
export function useImpact(id: string | null, text: string, isNeeded: boolean) {
  return useQuery({
    queryKey: keys.impact(id, text),
    queryFn: ({ signal }) =>
      call('POST', id ? `/year-plans/preview?id=${id}` : '/year-plans/preview', JSON.parse(text) as YearPlanRequest, { signal }),
    enabled: isNeeded,
    placeholderData: keepPreviousData,
    retry: false,
  })
}

export function useLists() {
  return useQuery({ queryKey: keys.lists, queryFn: () => call('GET', '/lists') })
}

/** What one line of text was understood as. */
export function useLine(text: string | null, day: Day) {
  return useQuery({
    queryKey: keys.line(text ?? '', day),
    queryFn: () => call('POST', '/events/line', { text: text ?? '', day }),
    enabled: text !== null,
    retry: false,
    staleTime: Infinity,
  })
}

/** What each line of a table was understood as. */
export function useSeveral(rows: TableRow[], calendarId: string | null) {
  const text = JSON.stringify({ rows, calendarId })
  return useQuery({
    queryKey: keys.several(text),
    queryFn: ({ signal }) => call('POST', '/events/several/check', JSON.parse(text), { signal }),
    placeholderData: keepPreviousData,
    retry: false,
  })
}

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

/** The edition as it would be, and what would be missing from it; nothing is asked while it has no calendar. */
export function useEditionPreview(id: string | undefined, text: string) {
  const edition = JSON.parse(text) as EditionDraft
  return useQuery({
    enabled: edition.sources.length > 0,
    queryKey: keys.editionPreview(`${id} ${text}`),
    queryFn: ({ signal }) => call('POST', id ? `/editions/preview?id=${id}` : '/editions/preview', { edition }, { signal }),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 30_000,
  })
}

/** One's own secret address of an edition for members. */
export function useEditionLink(id: string) {
  return useQuery({ queryKey: keys.editionLink(id), queryFn: () => call('GET', `/editions/${id}/link`) })
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

export function useZones() {
  return useQuery({ queryKey: ['zones'], queryFn: () => call('GET', '/zones'), staleTime: Infinity })
}

export function useColours() {
  return useQuery({ queryKey: ['colours'], queryFn: () => call('GET', '/colours'), staleTime: Infinity })
}

/** After any change: what is on screen is asked for again. */
export function useRefresh() {
  const client = useQueryClient()
  return {
    everything: () =>
      client.invalidateQueries({ predicate: (query) => query.queryKey[0] !== 'session' && query.queryKey[0] !== 'events' }),
    event: (id: string) => client.invalidateQueries({ queryKey: keys.event(id) }),
    session: () => client.invalidateQueries({ queryKey: keys.session }),
    /** Everything is asked for anew, as another audience gets it. */
    asOthers: () => client.resetQueries(),
    /** Nothing of the person who was signed in stays behind. */
    forgetAll: async () => {
      await client.resetQueries({ queryKey: keys.session })
      client.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' })
    },
    setSession: (session: Session) => client.setQueryData(keys.session, rememberToken(session)),
  }
}
