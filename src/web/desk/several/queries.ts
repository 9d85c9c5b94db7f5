import { keepPreviousData, useQuery } from '@tanstack/react-query'
import type { Day } from '../../shared/days'
import { call } from '../api'
import type { TableRow } from '../types'
import { keys } from '../keys'

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
