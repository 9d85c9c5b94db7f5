import { useCallback, useEffect, useRef, useState } from 'react'
import type { Month } from '../shared/days'
import { Closed, fetchMonth, pathOf, type Edition, type Months, type PageData } from './edition'

const POLL_EVERY = 60_000

export type Freshness = 'current' | 'away' | 'closed'

/** The months this page has, kept right while the page is open: news by server-sent events, else by asking each minute. */
export function useMonths(first: PageData, edition: Edition) {
  const [months, setMonths] = useState<Months>(() => new Map(first.months.map((month) => [month.month, month])))
  const [freshness, setFreshness] = useState<Freshness>('current')
  const known = useRef(months)
  useEffect(() => {
    known.current = months
  }, [months])

  const load = useCallback(
    async (wanted: Month[]) => {
      try {
        const fetched = await Promise.all(wanted.map((month) => fetchMonth(edition, month)))
        setMonths((before) => new Map([...before, ...fetched.map((month) => [month.month, month] as const)]))
        setFreshness('current')
      } catch (problem) {
        // What is shown stays; the reader is told that it may be old.
        setFreshness(problem instanceof Closed ? 'closed' : 'away')
      }
    },
    [edition],
  )

  const renew = useCallback(() => load([...known.current.keys()]), [load])

  const require = useCallback(
    (wanted: Month[]) => {
      const missing = wanted.filter((month) => !known.current.has(month))
      if (missing.length > 0) void load(missing)
    },
    [load],
  )

  useEffect(() => {
    if (!edition.isLive) return
    let version = first.version
    const changes = new EventSource(`${pathOf(edition)}/changes`)
    changes.addEventListener('edition', (news) => {
      if (news.data === version) return
      version = news.data
      void renew()
    })
    const polling = setInterval(() => {
      if (changes.readyState !== EventSource.OPEN) void renew()
    }, POLL_EVERY)
    return () => {
      changes.close()
      clearInterval(polling)
    }
  }, [edition, first.version, renew])

  return { months, freshness, require }
}
