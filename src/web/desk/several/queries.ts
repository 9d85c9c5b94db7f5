import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query'
import { useDeferredValue } from 'react'
import { call } from '../api'
import type { SeveralReading, TableRow } from '../types'
import { keys } from '../keys'

/** As many lines are read by one question: what is typed in one costs no reading of the others. */
const TOGETHER = 250

/** What one line of text is understood as. */
export function useLine(text: string | null) {
  return useQuery({
    queryKey: keys.line(text ?? ''),
    queryFn: ({ signal }) => call('POST', '/events/line', { text: text ?? '' }, { signal }),
    enabled: text !== null && text.trim() !== '',
    placeholderData: keepPreviousData,
    retry: false,
  })
}

/** What each line of a table was understood as, and how many were read so far. */
export function useReadings(rows: TableRow[], calendarId: string | null) {
  const deferred = useDeferredValue(rows)
  const parts = Array.from({ length: Math.ceil(deferred.length / TOGETHER) }, (_, part) =>
    JSON.stringify({ rows: deferred.slice(part * TOGETHER, (part + 1) * TOGETHER), calendarId }),
  )
  return useQueries({
    queries: parts.map((text) => asked(text)),
    combine: (answers) => ({
      rows: answers.flatMap<SeveralReading['rows'][number] | undefined>(
        (answer, part) => answer.data?.rows ?? deferred.slice(part * TOGETHER, (part + 1) * TOGETHER).map(() => undefined),
      ),
      error: answers.find((answer) => answer.error)?.error ?? null,
      read: Math.min(deferred.length, answers.filter((answer) => answer.data && !answer.isPlaceholderData).length * TOGETHER),
      isReading: deferred !== rows || answers.some((answer) => answer.isFetching),
      whoSees: answers.length === 1 ? (answers[0]?.data?.whoSees ?? []) : null,
    }),
  })
}

/** Who will see all of a long table: asked when nobody has typed for a while. */
export function useWhoSees(rows: TableRow[] | null, calendarId: string | null) {
  const text = rows === null ? null : JSON.stringify({ rows, calendarId })
  return useQuery({ ...asked(text ?? ''), enabled: text !== null }).data?.whoSees ?? []
}

const asked = (text: string) => ({
  queryKey: keys.several(text),
  queryFn: ({ signal }: { signal: AbortSignal }) =>
    call('POST', '/events/several/check', JSON.parse(text) as SeveralRequest, { signal }),
  placeholderData: keepPreviousData<SeveralReading>,
  retry: false as const,
})

interface SeveralRequest {
  rows: TableRow[]
  calendarId: string | null
}
