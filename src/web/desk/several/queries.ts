import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { call } from '../api'
import type { TableRow } from '../types'
import { keys } from '../keys'

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
